import fc from 'fast-check';
import {
  type AtAge,
  comparedWith,
  daysIn,
  eachLayer,
  effectOf,
  exposuresOf,
  type Facts,
  groupOf,
  type ItemFact,
  type LedgerLine,
  lastDays,
  layersOf,
  leastSold,
  medianDays,
  monthsIn,
  noSums,
  type SaleFact,
  type Scope,
  salesIn,
  soldBy,
  sumOf,
  survivalOf,
} from '.';

const at = (day: number) => new Date(Date.UTC(2026, 0, 1 + day));
const line = (day: number, delta: number, reason: LedgerLine['reason'], saleId: number | null = null): LedgerLine => ({
  delta,
  reason,
  saleId,
  at: at(day),
});

describe('layers of stock', () => {
  test('what came in first leaves first, and a sale may take of two', () => {
    const layers = layersOf([line(0, 3, 'opening'), line(5, 4, 'bought'), line(9, -5, 'sold', 1)]);
    expect(layers).toEqual([
      { units: 3, inAt: at(0), isFirst: true, outAt: at(9), saleId: 1, how: 'sold' },
      { units: 2, inAt: at(5), isFirst: false, outAt: at(9), saleId: 1, how: 'sold' },
      { units: 2, inAt: at(5), isFirst: false, outAt: null, saleId: null, how: 'here' },
    ]);
  });

  test('what a cancelled order gives back lies there as long as it did before', () => {
    const layers = layersOf([line(0, 1, 'opening'), line(9, -1, 'sold', 1), line(20, 1, 'cancelled', 1)]);
    expect(layers).toEqual([{ units: 1, inAt: at(0), isFirst: true, outAt: null, saleId: null, how: 'here' }]);
  });

  test('what only changes its place neither leaves nor comes', () => {
    const layers = layersOf([line(0, 5, 'opening'), line(3, -2, 'set-aside'), line(3, 2, 'set-aside')]);
    expect(layers).toEqual([{ units: 5, inAt: at(0), isFirst: true, outAt: null, saleId: null, how: 'here' }]);
  });

  test('lost is gone, not sold; sold beyond what was there waits for what comes', () => {
    expect(
      layersOf([line(0, 2, 'opening'), line(1, -1, 'lost'), line(2, -2, 'sold', 7), line(4, 3, 'bought')]),
    ).toEqual([
      { units: 1, inAt: at(0), isFirst: true, outAt: at(1), saleId: null, how: 'gone' },
      { units: 1, inAt: at(0), isFirst: true, outAt: at(2), saleId: 7, how: 'sold' },
      { units: 2, inAt: at(4), isFirst: false, outAt: null, saleId: null, how: 'here' },
    ]);
  });

  test('law: what lies here, less what was sold beyond it, is the sum of the ledger; nothing leaves before it came', () => {
    const step = fc.record({
      delta: fc.integer({ min: -6, max: 6 }).filter((delta) => delta !== 0),
      sale: fc.integer({ min: 1, max: 4 }),
      how: fc.constantFrom('trade' as const, 'correction' as const),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const ledger = steps.map(({ delta, sale, how }, day) =>
          how === 'correction'
            ? line(day, delta, 'corrected')
            : line(day, delta, delta < 0 ? 'sold' : 'cancelled', sale),
        );
        const layers = layersOf(ledger);
        const sum = ledger.reduce((all, one) => all + one.delta, 0);
        const here = layers.filter((one) => one.how === 'here').reduce((all, one) => all + one.units, 0);
        expect(here - Math.max(0, here - sum)).toBe(Math.min(here, sum));
        expect(here).toBeGreaterThanOrEqual(sum);
        // There is a gap only where nothing lies here.
        if (here > sum) expect(here).toBe(0);
        for (const { units, inAt, outAt } of layers) {
          expect(units).toBeGreaterThan(0);
          if (outAt) expect(Number(outAt)).toBeGreaterThanOrEqual(Number(inAt));
        }
      }),
    );
  });
});

describe('how long things stand', () => {
  /** Weeks of remission of 21 patients under 6-mercaptopurine, the standing example of the method (Freireich et al. 1963). */
  const remission: AtAge[] = [
    [6, 3, 1],
    [7, 1, 0],
    [9, 0, 1],
    [10, 1, 1],
    [11, 0, 1],
    [13, 1, 0],
    [16, 1, 0],
    [17, 0, 1],
    [19, 0, 1],
    [20, 0, 1],
    [22, 1, 0],
    [23, 1, 0],
    [25, 0, 1],
    [32, 0, 2],
    [34, 0, 1],
    [35, 0, 1],
  ].map(([day = 0, sold = 0, left = 0]) => ({ day, sold, left }));

  test('agrees with the published table', () => {
    const points = survivalOf(remission);
    const shown = points.map(({ day, unsold }) => [day, Number(unsold.toFixed(3))]);
    expect(shown).toEqual([
      [0, 1],
      [6, 0.857],
      [7, 0.807],
      [10, 0.753],
      [13, 0.69],
      [16, 0.627],
      [22, 0.538],
      [23, 0.448],
    ]);
    expect(medianDays(points)).toBe(23);
    expect(soldBy(points, 15)).toBeCloseTo(1 - 0.69, 3);
    // Greenwood's standard error at 23 weeks is published as 0.1346; the bounds are its log-minus-log ones.
    const last = points.at(-1);
    const spread = (1.959963984540054 * 0.1346) / (0.448 * Math.abs(Math.log(0.448)));
    expect(last?.least).toBeCloseTo(0.448 ** Math.exp(spread), 2);
    expect(last?.most).toBeCloseTo(0.448 ** Math.exp(-spread), 2);
  });

  test('where all has sold it is the plain share, and without a half sold there is no median', () => {
    const points = survivalOf([
      { day: 2, sold: 1, left: 0 },
      { day: 4, sold: 1, left: 0 },
      { day: 8, sold: 2, left: 0 },
    ]);
    expect(points.map((one) => one.unsold)).toEqual([1, 0.75, 0.5, 0]);
    expect(medianDays(points)).toBe(4);
    expect(medianDays(survivalOf([{ day: 3, sold: 1, left: 9 }]))).toBeNull();
    expect(survivalOf([])).toEqual([{ day: 0, unsold: 1, least: 1, most: 1, atRisk: 0 }]);
  });

  test('law: it only falls, stays between its bounds, and the order of what is told does not matter', () => {
    const ages = fc.array(
      fc.record({ day: fc.nat(400), sold: fc.nat(5), left: fc.nat(5) }).filter((one) => one.sold + one.left > 0),
      { minLength: 1, maxLength: 40 },
    );
    fc.assert(
      fc.property(ages, (given) => {
        const points = survivalOf(given);
        expect(survivalOf([...given].reverse())).toEqual(points);
        points.forEach((point, index) => {
          expect(point.unsold).toBeLessThanOrEqual(points[index - 1]?.unsold ?? 1);
          expect(point.least).toBeLessThanOrEqual(point.unsold + 1e-12);
          expect(point.most).toBeGreaterThanOrEqual(point.unsold - 1e-12);
        });
      }),
    );
  });
});

describe('what something brought', () => {
  const crude = { soldBefore: 20, daysBefore: 1_000, soldAfter: 30, daysAfter: 500 };
  test('within one band of age it is the plain ratio of sales a day', () => {
    const effect = effectOf([crude]);
    expect(effect?.ratio).toBeCloseTo(3, 10);
    // By hand: the variance of its logarithm is 50·1000·500/1500² ÷ ((30·1000/1500)·(20·500/1500)) = 1/12.
    expect(effect?.least).toBeCloseTo(3 / Math.exp(1.959963984540054 / Math.sqrt(12)), 6);
    expect(effect?.most).toBeCloseTo(3 * Math.exp(1.959963984540054 / Math.sqrt(12)), 6);
  });

  test('things that stand longer sell more slowly anyhow: only the same age is compared', () => {
    // Young things sell ten times as fast, and what was renewed was old. It changed nothing.
    const young = { soldBefore: 100, daysBefore: 1_000, soldAfter: 10, daysAfter: 100 };
    const old = { soldBefore: 10, daysBefore: 1_000, soldAfter: 50, daysAfter: 5_000 };
    expect(effectOf([young, old])?.ratio).toBeCloseTo(1, 10);
  });

  test('with too few sold before or after nothing is said', () => {
    expect(effectOf([])).toBeNull();
    expect(effectOf([{ ...crude, soldBefore: leastSold - 1 }])).toBeNull();
    expect(effectOf([{ ...crude, soldAfter: leastSold - 1 }])).toBeNull();
    expect(effectOf([{ ...crude, daysAfter: 0 }])).toBeNull();
  });

  test('law: turned round it is the inverse', () => {
    const band = fc.record({
      soldBefore: fc.integer({ min: 10, max: 90 }),
      daysBefore: fc.integer({ min: 100, max: 9_000 }),
      soldAfter: fc.integer({ min: 10, max: 90 }),
      daysAfter: fc.integer({ min: 100, max: 9_000 }),
    });
    fc.assert(
      fc.property(fc.array(band, { minLength: 1, maxLength: 5 }), (bands) => {
        const there = effectOf(bands);
        const back = effectOf(
          bands.map(({ soldBefore, daysBefore, soldAfter, daysAfter }) => ({
            soldBefore: soldAfter,
            daysBefore: daysAfter,
            soldAfter: soldBefore,
            daysAfter: daysBefore,
          })),
        );
        expect((there?.ratio ?? 0) * (back?.ratio ?? 0)).toBeCloseTo(1, 8);
        expect((there?.least ?? 0) * (back?.most ?? 0)).toBeCloseTo(1, 8);
      }),
    );
  });
});

describe('time on offer', () => {
  const [young] = exposuresOf([{ alike: 'a', units: 2, days: 10, isSold: true, doneOn: null }]);
  test('what nothing was done to is before, with a half for the last day', () => {
    expect(young).toEqual({ soldBefore: 2, daysBefore: 21, soldAfter: 0, daysAfter: 0 });
  });

  test('a day on which it is done divides it; what is sold much later has other reasons', () => {
    const [first, second, third] = exposuresOf([
      { alike: 'a', units: 1, days: 40, isSold: true, doneOn: 20 },
      { alike: 'a', units: 1, days: 100, isSold: true, doneOn: 20 },
    ]);
    // Days 20 to 30 and 30 to 40.5; of the second one the sixty days after it, and its sale does not count.
    expect(first).toEqual({ soldBefore: 0, daysBefore: 40, soldAfter: 0, daysAfter: 20 });
    expect(second).toEqual({ soldBefore: 0, daysBefore: 0, soldAfter: 1, daysAfter: 10.5 + 50 });
    expect(third).toEqual({ soldBefore: 0, daysBefore: 0, soldAfter: 0, daysAfter: 0 });
  });

  test('law: every unit is sold at most once, and no day counts twice', () => {
    const offer = fc.record({
      alike: fc.constantFrom('a', 'b'),
      units: fc.integer({ min: 1, max: 5 }),
      days: fc.nat(900),
      isSold: fc.boolean(),
      doneOn: fc.option(fc.nat(900), { nil: null }),
    });
    fc.assert(
      fc.property(fc.array(offer, { maxLength: 20 }), (offers) => {
        const all = exposuresOf(offers);
        const sum = (of: (one: (typeof all)[number]) => number) => all.reduce((whole, one) => whole + of(one), 0);
        const units = offers.reduce((whole, one) => whole + (one.isSold ? one.units : 0), 0);
        const days = offers.reduce((whole, one) => whole + one.units * (one.days + 0.5), 0);
        expect(sum((one) => one.soldBefore + one.soldAfter)).toBeLessThanOrEqual(units);
        expect(sum((one) => one.daysBefore + one.daysAfter)).toBeLessThanOrEqual(days + 1e-6);
      }),
    );
  });
});

describe('sums', () => {
  const amounts = { taken: 1_000, commission: 100, payment: 30, handling: 0, otherFees: 5 };
  const sale = (more: Partial<SaleFact> = {}): SaleFact => ({
    day: 10,
    accountId: 1,
    itemId: 7,
    quantity: 2,
    isCancelled: false,
    amounts,
    postage: 50,
    packing: 10,
    cost: 200,
    ...more,
  });
  const item: ItemFact = {
    category: 'cameras',
    brand: 'Brask',
    supplier: '',
    batch: '',
    condition: '',
    price: 4_900,
    cost: 200,
    standing: 'active',
    isWhole: false,
    listedDay: null,
    cutDay: null,
    renewedDay: null,
    crossedDay: null,
    places: [2],
  };
  test('a line adds up to its net; cancelled it has none, and without a rate it has pieces and no amount', () => {
    expect(sumOf([sale()])).toMatchObject({ orders: 1, pieces: 2, taken: 1_000, cost: 400, net: 405 });
    expect(sumOf([sale({ isCancelled: true })])).toEqual({ ...noSums, cancelled: 1 });
    expect(sumOf([sale({ amounts: null })])).toEqual({ ...noSums, orders: 1, pieces: 2, unknown: 1 });
    expect(sumOf([sale({ cost: null })])).toMatchObject({ cost: 0, costless: 2, net: 805 });
  });

  test('a scope narrows by days, account and items; whole sets and what was deleted lie nowhere', () => {
    const sales = new Map([sale(), sale({ day: 11 }), sale({ accountId: 2 }), sale({ itemId: null })].entries());
    const layers = new Map([[7, [{ units: 3, inDay: 1, outDay: null, how: 'here' as const }]]]);
    const facts: Facts = { sales, layers, items: new Map([[7, item]]), today: 20 };
    const count = (scope: Partial<Scope>, from = 0, to = 99) =>
      salesIn(facts, { items: null, soldOn: null, ...scope }, from, to).length;
    expect([count({}), count({}, 11), count({}, 0, 10)]).toEqual([4, 1, 3]);
    expect([count({ soldOn: 2 }), count({ items: new Set([7]) }), count({ items: new Set() })]).toEqual([1, 3, 0]);
    const lying = (known: ItemFact, soldOn: number | null = null) => {
      let seen = 0;
      eachLayer({ ...facts, items: new Map([[7, known]]) }, { items: null, soldOn }, () => seen++);
      return seen;
    };
    expect([lying(item), lying(item, 2), lying(item, 1)]).toEqual([1, 1, 0]);
    expect([lying({ ...item, isWhole: true }), lying({ ...item, standing: 'deleted' })]).toEqual([0, 0]);
    expect([groupOf(item, 'price'), groupOf({ ...item, price: 2_000 }, 'price'), groupOf(item, 'brand')]).toEqual([
      '1',
      '1',
      'Brask',
    ]);
  });
});

describe('periods', () => {
  test('the time before is as long and ends the day before it begins', () => {
    const march = { from: '2028-03-01', to: '2028-03-31' };
    expect(comparedWith(march, 'before')).toEqual({ from: '2028-01-30', to: '2028-02-29' });
    expect(comparedWith({ from: '2028-02-29', to: '2028-03-31' }, 'year')).toEqual({
      from: '2027-02-28',
      to: '2027-03-31',
    });
    expect(comparedWith(march, 'none')).toBeNull();
  });

  test('law: so many days are so many, and the time before touches it', () => {
    const days = fc.integer({ min: 1, max: 2_000 });
    fc.assert(
      fc.property(days, days, (long, offset) => {
        const to = new Date(Date.UTC(2024, 0, 1 + offset)).toISOString().slice(0, 10);
        const period = lastDays(long, to);
        expect(daysIn(period)).toBe(long);
        const before = comparedWith(period, 'before');
        expect(before && daysIn(before)).toBe(long);
        expect(before && daysIn({ from: before.from, to: period.to })).toBe(2 * long);
      }),
    );
  });

  test('the months that a period touches', () => {
    expect(monthsIn({ from: '2025-11-30', to: '2026-02-01' })).toEqual(['2025-11', '2025-12', '2026-01', '2026-02']);
    expect(monthsIn({ from: '2026-02-01', to: '2026-02-03' })).toEqual(['2026-02']);
  });
});
