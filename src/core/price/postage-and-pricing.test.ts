import fc from 'fast-check';
import { sampleRules } from '../testing.test-data';
import { costPerPound, isSamePrice, listingPrice, netOf, type Pricing, quotes, samePricing, type Tariff } from '.';

const tariffs: Tariff[] = [
  {
    id: 'a',
    name: 'A',
    volumeDivisor: 6_000,
    steps: [
      { upToGrams: 1_000, cents: 400 },
      { upToGrams: 5_000, cents: 700 },
    ],
    bands: { home: 100, far: 300 },
    longestMm: 1_000,
  },
  {
    id: 'b',
    name: 'B',
    volumeDivisor: 5_000,
    steps: [{ upToGrams: 3_000, cents: 500 }],
    bands: { home: 90 },
    longestMm: 500,
  },
];

describe('quotes', () => {
  test('cheapest first, by step and band', () => {
    expect(quotes(tariffs, { grams: 800, sides: null, band: 'home' })).toEqual([
      { carrier: 'a', name: 'A', amount: 400, countedGrams: 800 },
      { carrier: 'b', name: 'B', amount: 450, countedGrams: 800 },
    ]);
    expect(quotes(tariffs, { grams: 800, sides: null, band: 'far' })).toEqual([
      { carrier: 'a', name: 'A', amount: 1_200, countedGrams: 800 },
    ]);
  });

  test('a light but large parcel counts by its volume', () => {
    expect(
      quotes(tariffs, { grams: 200, sides: [300, 300, 200], band: 'home' }).map((one) => one.countedGrams),
    ).toEqual([3_000, 3_600].slice(0, 1));
  });

  test.each([
    ['too heavy', { grams: 9_000, sides: null, band: 'home' }],
    ['too long', { grams: 100, sides: [1_200, 10, 10] as [number, number, number], band: 'home' }],
    ['nowhere', { grams: 100, sides: null, band: 'moon' }],
  ])('%s: nobody takes it', (_why, parcel) => expect(quotes(tariffs, parcel)).toEqual([]));

  test('more weight never costs less', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2_990 }), (grams) => {
        const at = (weight: number) =>
          quotes(tariffs, { grams: weight, sides: null, band: 'home' }).find((one) => one.carrier === 'a')?.amount ?? 0;
        expect(at(grams + 10)).toBeGreaterThanOrEqual(at(grams));
      }),
    );
  });
});

describe('cost per pound', () => {
  test('is what was paid by what it weighed', () => {
    expect(costPerPound([{ grams: 453.59237 * 2, paid: 600 }])).toBe(300);
    expect(
      costPerPound([
        { grams: 1_000, paid: 500 },
        { grams: 0, paid: 999 },
      ]),
    ).toBe(227);
  });
  test('is not known without parcels', () => expect(costPerPound([])).toBeNull());
});

describe('the price on an account', () => {
  const { fees } = sampleRules();
  const net = {
    fees,
    categoryId: null,
    liveCount: 0,
    weightGrams: 300,
    sellerPaysPostage: false,
    buyerPaysLabel: false,
  };
  const rate = { from: 'EUR', to: 'SGD', millionths: 1_450_000, date: '2026-03-01' };
  const made = (pricing: Partial<Pricing>, more: Partial<Parameters<typeof listingPrice>[1]> = {}, price = 10_000) =>
    listingPrice(price, {
      pricing: { ...samePricing, ...pricing },
      rate: null,
      needsRate: false,
      holds: false,
      net,
      ...more,
    });

  test.each([
    [{}, 10_000],
    [{ mode: 'percent', basisPoints: 1_000 }, 11_000],
    [{ mode: 'percent', basisPoints: -500 }, 9_500],
    [{ rounding: 'ninetyNine' }, 10_099],
    [{ rounding: 'whole' }, 10_000],
    [{ mode: 'percent', basisPoints: 333, rounding: 'ninety' }, 10_390],
  ] as [Partial<Pricing>, number][])('%j makes %i of 100.00', (pricing, price) =>
    expect(made(pricing)?.price).toBe(price),
  );

  test('postage goes into the price where the seller pays it', () => {
    expect(made({ addPostage: true })?.price).toBe(10_000);
    expect(made({ addPostage: true }, { net: { ...net, sellerPaysPostage: true } })).toEqual({
      price: 10_395,
      because: ['with postage'],
    });
  });

  test('another currency by a dated rate; none without a rate', () => {
    expect(made({}, { rate, needsRate: true })).toEqual({ price: 14_500, because: ['at the rate of 2026-03-01'] });
    expect(made({}, { needsRate: true })).toBeNull();
  });

  test('a price that holds everything leaves at least the item’s price, and one step less does not', () => {
    const prices = fc.record({
      price: fc.integer({ min: 100, max: 400_000 }),
      grams: fc.integer({ min: 1, max: 2_000 }),
      rounding: fc.constantFrom('none' as const, 'ninety' as const, 'whole' as const),
    });
    fc.assert(
      fc.property(prices, ({ price, grams, rounding }) => {
        const own = { ...net, weightGrams: grams, sellerPaysPostage: true };
        const found = made({ rounding }, { holds: true, net: own }, price);
        const left = (at: number) => netOf({ ...own, price: at, cost: 0, packaging: 0 }).net;
        expect(left(found?.price ?? 0)).toBeGreaterThanOrEqual(price);
        expect(left((found?.price ?? 0) - (rounding === 'none' ? 1 : 100))).toBeLessThan(price);
      }),
    );
  });

  test('nothing to compute is known as such', () => {
    expect(isSamePrice(samePricing, 'EUR', 'EUR', false)).toBe(true);
    expect(isSamePrice(samePricing, 'EUR', 'SGD', false)).toBe(false);
    expect(isSamePrice(samePricing, 'EUR', 'EUR', true)).toBe(false);
    expect(isSamePrice({ ...samePricing, addPostage: true }, 'EUR', 'EUR', false)).toBe(false);
    expect(isSamePrice({ ...samePricing, mode: 'keep' }, 'EUR', 'EUR', false)).toBe(false);
  });
});
