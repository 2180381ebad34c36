import fc from 'fast-check';
import { type House, perMinute, secondsToSend } from '../bench/simulate';

const plenty: House = { senders: 4, coresEach: 100, senderMs: 10, databaseCores: 100, databaseMs: 1 };
const lane = fc.record({ perMinute: fc.integer({ min: 60, max: 1_200 }), waiting: fc.integer({ min: 0, max: 400 }) });

test('with machines enough the slowest lane says how long it takes', () => {
  fc.assert(
    fc.property(fc.array(lane, { minLength: 1, maxLength: 8 }), (lanes) => {
      const slowest = Math.max(...lanes.map((one) => (one.waiting * 60) / one.perMinute));
      const took = secondsToSend(lanes, plenty);
      expect(took).toBeGreaterThanOrEqual(slowest - 1e-6);
      expect(took).toBeLessThanOrEqual(slowest + 0.51);
    }),
    { numRuns: 30 },
  );
});

test('more machines never make it slower, and past the pace of the marketplaces they make nothing faster', () => {
  const lanes = Array.from({ length: 12 }, () => ({ perMinute: 600, waiting: 0 }));
  const with_ = (senders: number) =>
    perMinute(lanes, { senders, coresEach: 1, senderMs: 40, databaseCores: 2, databaseMs: 10 });
  const rates = [1, 2, 4, 6, 12].map(with_);
  for (const [at, rate] of rates.entries()) expect(rate).toBeGreaterThanOrEqual((rates[at - 1] ?? 0) - 20);
  // One core at 40 ms sends 25 a second; the marketplaces allow 120 in all.
  expect(rates[0]).toBeGreaterThan(1_450);
  expect(rates[0]).toBeLessThanOrEqual(1_505);
  expect(rates[4]).toBeGreaterThan(6_900);
  expect(rates[4]).toBeLessThanOrEqual(7_200);
});

test('the database that is written to is the end of it', () => {
  const lanes = Array.from({ length: 40 }, () => ({ perMinute: 1_200, waiting: 0 }));
  const house = { senders: 40, coresEach: 8, senderMs: 20, databaseCores: 2, databaseMs: 10 };
  expect(perMinute(lanes, house)).toBeGreaterThan(11_700);
  expect(perMinute(lanes, house)).toBeLessThanOrEqual(12_010);
});
