import fc from 'fast-check';
import type { Comparable } from '../price/comparables';
import { adjusted, basisWords, findPrice, type KeptSales, kindPrice, lotPricingSchema } from '.';

const today = '2026-11-01';
const day = (ago: number) => new Date(Date.parse(today) - ago * 86_400_000).toISOString().slice(0, 10);
const sale = (price: number, ago: number, more: Partial<Comparable> = {}): Comparable => ({
  price,
  quantity: 1,
  date: day(ago),
  condition: 'used',
  ...more,
});
const told = (some: Partial<KeptSales>): KeptSales => ({ sales: [], offers: [], ...some });
const lot = { condition: 'used', finish: 'black' };
const how = { measure: 'median' as const, days: 90 as const, least: 3 };
const worth = (condition: string) => ({ sealed: 120, complete: 100, used: 80 })[condition] ?? null;
const find = (some: Partial<KeptSales>, more: Partial<typeof how> = {}) =>
  findPrice(lot, told(some), { ...how, ...more }, worth, today);

test('enough sales as wanted are taken as they are; others are not asked', () => {
  const sales = [sale(100, 1), sale(300, 20), sale(200, 80), sale(900, 100), sale(5, 3, { condition: 'sealed' })];
  expect(find({ sales })).toMatchObject({ step: 'sales', days: 90, count: 3, found: 200 });
  const otherFinish = [...sales, sale(7, 1, { finish: 'chrome' })];
  expect(find({ sales: otherFinish })).toMatchObject({ step: 'sales', count: 3, found: 200 });
});

test('the chain: longer, other conditions by their worth, other finishes, offers; nothing where nothing is', () => {
  const old = [sale(100, 100), sale(200, 110), sale(300, 170)];
  expect(find({ sales: old })).toMatchObject({ step: 'longer', days: 180, found: 200 });
  const graded = [sale(100, 10, { condition: 'complete' }), sale(100, 10, { condition: 'complete' }), sale(80, 10)];
  expect(find({ sales: graded })).toMatchObject({ step: 'condition', days: 365, count: 3, found: 80 });
  const finished = graded.map((one) => ({ ...one, finish: 'chrome' }));
  expect(find({ sales: finished })).toMatchObject({ step: 'finish', found: 80 });
  const offers = [
    { price: 150, quantity: 1, condition: 'used' },
    { price: 250, quantity: 1, condition: 'used' },
  ];
  expect(find({ sales: graded.slice(2), offers })).toMatchObject({ step: 'offers', count: 2, found: 200, days: null });
  const dearer = [{ price: 150, quantity: 1, condition: 'sealed' }];
  expect(find({ offers: dearer })).toMatchObject({ step: 'offers', found: 100 });
  expect(find({ sales: graded.slice(2) })).toBeNull();
  expect(find({ offers: [{ price: 150, quantity: 1, condition: 'odd' }] })).toBeNull();
});

test('what is least and most on offer is asked of offers first, and of sales only where there are none', () => {
  const offers = [120, 90, 300].map((price) => ({ price, quantity: 1, condition: 'used' }));
  const sales = [sale(100, 1), sale(200, 2), sale(300, 3)];
  const ask = (measure: 'least-offer' | 'greatest-offer', some: Partial<KeptSales>) =>
    findPrice(lot, told(some), { ...how, measure }, worth, today);
  expect(ask('least-offer', { offers, sales })).toMatchObject({ step: 'offers', found: 90 });
  expect(ask('greatest-offer', { offers, sales })).toMatchObject({ step: 'offers', found: 300 });
  expect(ask('least-offer', { sales })).toMatchObject({ step: 'sales', measure: 'median', found: 200 });
});

test('a median from sales is what a plain computation says', () => {
  const many = fc.array(
    fc.record({
      price: fc.integer({ min: 1_000, max: 1_080 }),
      ago: fc.integer({ min: 0, max: 400 }),
      condition: fc.constantFrom('used', 'sealed'),
      finish: fc.constantFrom('black', 'chrome'),
    }),
    { maxLength: 40 },
  );
  fc.assert(
    fc.property(many, fc.constantFrom(30, 90, 180, 365) as fc.Arbitrary<30 | 90 | 180 | 365>, (all, days) => {
      const sales = all.map(({ price, ago, condition, finish }) => sale(price, ago, { condition, finish }));
      const found = findPrice(lot, told({ sales }), { ...how, days }, worth, today);
      const fits = all
        .filter((one) => one.condition === 'used' && one.finish === 'black' && one.ago <= days)
        .map((one) => one.price)
        .sort((a, b) => a - b);
      if (fits.length < 3) return expect(found?.step).not.toBe('sales');
      const [low = 0, high = 0] = [fits[Math.ceil(fits.length / 2) - 1], fits[Math.floor(fits.length / 2)]];
      return expect(found).toMatchObject({
        step: 'sales',
        days,
        count: fits.length,
        found: Math.round((low + high) / 2),
      });
    }),
  );
});

test('outliers are left out and told, in words as well', () => {
  const sales = [...Array.from({ length: 8 }, (_, at) => sale(200 + at, at)), sale(4_000, 9)];
  const found = find({ sales });
  expect(found).toMatchObject({ count: 8, outliers: [{ price: 4_000, date: day(9) }] });
  if (!found) throw new Error('nothing was found');
  const say = (amount: number) => (amount / 100).toFixed(2);
  expect(basisWords({ ...found, isFloor: true, onOffer: 4, heardAt: '2026-11-01 04:41' }, say)).toBe(
    'Median of 8 sales in 90 days: 2.04; raised to what the fees ask for; left out: 40.00 (2026-10-23); 4 on offer; heard 2026-11-01 04:41',
  );
});

test('up or down, ending as wanted, never under the floor and never free', () => {
  const by = (some: object) => lotPricingSchema.parse(some);
  expect(adjusted(1_000, by({ basisPoints: -500 }), 0)).toEqual({ price: 950, isFloor: false });
  expect(adjusted(1_000, by({ basisPoints: -500, amount: -20, rounding: 'ninetyNine' }), 0).price).toBe(899);
  expect(adjusted(40, by({}), 61)).toEqual({ price: 61, isFloor: true });
  expect(adjusted(10, by({ amount: -500 }), 0).price).toBe(1);
});

test('of the same kind: the middle of what was found', () => {
  expect(kindPrice([300, 100, 200], 'median')).toMatchObject({ step: 'kind', count: 3, found: 200 });
  expect(kindPrice([], 'median')).toBeNull();
});
