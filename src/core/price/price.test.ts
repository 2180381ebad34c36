import fc from 'fast-check';
import { roundings } from '../measure';
import { sampleRules } from '../testing.test-data';
import { feesOf, labelFor, type Net, netOf, priceFor } from '.';
import { reaches } from './solve';

const { fees } = sampleRules();
const base = {
  fees,
  cost: 5_000,
  categoryId: null,
  liveCount: 0,
  weightGrams: 900,
  sellerPaysPostage: false,
  packaging: 60,
};

test('commission by steps, the lower rate only for the part above', () => {
  expect(feesOf(fees, { total: 10_000, categoryId: null, liveCount: 0 })).toMatchObject({
    listing: 0,
    commission: 1_180,
    payment: 35,
    total: 1_215,
  });
  expect(feesOf(fees, { total: 300_000, categoryId: null, liveCount: 0 }).commission).toBe(23_600 + 2_400);
});

test('a category’s own rate replaces the first step, a listing fee begins after the free ones', () => {
  expect(feesOf(fees, { total: 10_000, categoryId: '12', liveCount: 0 }).commission).toBe(1_400);
  expect(feesOf(fees, { total: 10_000, categoryId: null, liveCount: 2 }).listing).toBe(25);
});

test('the cheapest label that carries the weight', () => {
  expect(labelFor(fees, 500)?.id).toBe('s');
  expect(labelFor(fees, 501)?.id).toBe('m');
  expect(labelFor(fees, 9_000)?.id).toBe('m');
});

test('net is what is left of the price', () => {
  const net = netOf({ ...base, price: 10_000, sellerPaysPostage: true });
  expect(net).toMatchObject({
    postage: 595,
    packaging: 60,
    cost: 5_000,
    net: 10_000 - 1_215 - 595 - 60 - 5_000,
    margin: 3_130,
  });
});

const goal = fc.oneof(
  fc.record({ kind: fc.constant('net' as const), amount: fc.integer({ min: 0, max: 400_000 }) }),
  fc.record({ kind: fc.constant('margin' as const), basisPoints: fc.integer({ min: 0, max: 6_000 }) }),
  fc.record({ kind: fc.constant('return' as const), basisPoints: fc.integer({ min: 0, max: 30_000 }) }),
);

test('the solved price reaches the goal and one rounding step lower does not', () => {
  fc.assert(
    fc.property(
      goal,
      fc.constantFrom(...Object.values(roundings)),
      fc.integer({ min: 100, max: 50_000 }),
      fc.boolean(),
      (wanted, rounding, cost, sellerPaysPostage) => {
        const input = { ...base, cost, sellerPaysPostage };
        const price = priceFor(input, wanted, rounding);
        if (price === null) return false;
        const reaches = (at: number) => {
          const net = netOf({ ...input, price: at });
          if (wanted.kind === 'net') return net.net >= wanted.amount;
          return net.net * 10_000 >= wanted.basisPoints * (wanted.kind === 'margin' ? at : cost);
        };
        const lower = price - rounding.step;
        return reaches(price) && (price - rounding.ending) % rounding.step === 0 && (lower <= 0 || !reaches(lower));
      },
    ),
  );
});

test('never under the floor, and null when no price can reach it', () => {
  expect(priceFor(base, { kind: 'net', amount: 0 }, roundings.ninetyNine, 20_000)).toBe(20_099);
  expect(priceFor(base, { kind: 'margin', basisPoints: 9_900 }, roundings.none)).toBeNull();
});

test('exactly what is wanted is enough', () => {
  const net = { net: 3_000, price: 10_000, cost: 6_000 } as Net;
  expect(reaches(net, { kind: 'net', amount: 3_000 })).toBe(true);
  expect(reaches(net, { kind: 'margin', basisPoints: 3_000 })).toBe(true);
  expect(reaches(net, { kind: 'margin', basisPoints: 3_001 })).toBe(false);
  expect(reaches(net, { kind: 'return', basisPoints: 5_000 })).toBe(true);
  expect(reaches(net, { kind: 'return', basisPoints: 5_001 })).toBe(false);
});
