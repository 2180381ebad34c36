import fc from 'fast-check';
import type { FeeTable } from '../price';
import { fillPlaces, likelyPieces, placesBetween, type WorthLot, worthInputSchema, worthOf } from '.';

const fees: FeeTable = {
  listing: null,
  commission: [{ upTo: null, rate: 1_000 }],
  commissionByCategory: {},
  payment: { rate: 0, fixed: 20 },
  labels: [],
} as unknown as FeeTable; // what a plain marketplace asks
const lot = (some: Partial<WorthLot> = {}): WorthLot => ({
  quantity: 4,
  price: 1_000,
  paceDays: 30,
  perDay: null,
  others: 0,
  ...some,
});
const input = (some: object) => worthInputSchema.parse({ sets: 1, wholePrice: 2_000, ...some });

test('in parts and whole, worked out by hand', () => {
  const by = input({ days: 30, hourly: 600, minutesPerLot: 3, minutesPerOrder: 5, perOrder: 2, packing: 50 });
  const { likely, parts, whole, paysAt } = worthOf([lot(), lot({ price: null })], fees, by);
  // Four pieces in two orders of 20.00: 10 % and 0.20 of each.
  expect(parts).toEqual({
    pieces: 4,
    revenue: 4_000,
    fees: 440,
    postage: 0,
    packing: 100,
    minutes: 13,
    time: 130,
    net: 3_330,
  });
  expect(likely).toMatchObject({ pieces: 2, revenue: 2_000, fees: 220, packing: 50, time: 80, net: 1_650 });
  // Half an hour, a box.
  expect(whole).toMatchObject({ revenue: 2_000, fees: 220, packing: 400, time: 300, net: 1_080 });
  expect(paysAt).toBe(Math.round(((1_080 + 30) / (3_330 + 30)) * 10_000));
});

test('what is likely rises with the days, and never over what is there or what one’s share of all sales is', () => {
  const lots = fc.record({
    quantity: fc.integer({ min: 1, max: 90 }),
    price: fc.constant(500),
    paceDays: fc.option(fc.integer({ min: 0, max: 400 })),
    perDay: fc.option(fc.double({ min: 0, max: 2, noNaN: true })),
    others: fc.integer({ min: 0, max: 30 }),
  });
  fc.assert(
    fc.property(lots, fc.integer({ min: 1, max: 900 }), fc.integer({ min: 1, max: 900 }), (one, a, b) => {
      const [few, many] = [likelyPieces(one, Math.min(a, b)), likelyPieces(one, Math.max(a, b))];
      expect(few).toBeLessThanOrEqual(many + 1e-9);
      expect(many).toBeLessThanOrEqual(one.quantity);
      if (one.perDay !== null)
        expect(many).toBeLessThanOrEqual((Math.max(a, b) * one.perDay) / (1 + one.others) + 1e-9);
    }),
  );
});

test('the day from which on breaking pays is the first one on which it does; never where it never does', () => {
  const by = input({ wholePrice: 2_500, hourly: 600 });
  const { paysAfterDays } = worthOf([lot()], fees, by);
  const netAfter = (days: number) => worthOf([lot()], fees, { ...by, days }).likely.net;
  const whole = worthOf([lot()], fees, by).whole?.net ?? 0;
  if (paysAfterDays === null) throw new Error('it never pays');
  expect(netAfter(paysAfterDays)).toBeGreaterThanOrEqual(whole);
  expect(netAfter(paysAfterDays - 1)).toBeLessThan(whole);
  expect(worthOf([lot()], fees, input({ wholePrice: 0 })).paysAfterDays).toBe(0);
  expect(worthOf([lot()], fees, input({ wholePrice: 90_000 }))).toMatchObject({ paysAt: null, paysAfterDays: null });
  expect(worthOf([lot()], fees, input({ wholePrice: null }))).toMatchObject({ whole: null, paysAt: null });
});

test('places in their order, each until it is full; who finds no room is told', () => {
  expect(placesBetween('A1', 'A4')).toEqual(['A1', 'A2', 'A3', 'A4']);
  expect(placesBetween('B-09', 'B-11')).toEqual(['B-09', 'B-10', 'B-11']);
  expect(placesBetween('A4', 'A1')).toBeNull();
  expect(placesBetween('', 'A1')).toBeNull();
  const taken = new Map([
    ['A1', 1],
    ['A2', 5],
  ]);
  expect(fillPlaces(4, ['A1', 'A2', 'A3'], 2, taken)).toEqual(['A1', 'A3', 'A3', null]);
  expect(fillPlaces(0, ['A1'], 2, taken)).toEqual([]);
});
