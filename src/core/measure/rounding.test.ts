import fc from 'fast-check';
import { roundings, roundTo } from './rounding';

test.each([
  [1187, 'ninetyNine', 1199],
  [1130, 'ninetyNine', 1099],
  [1130, 'whole', 1100],
  [1126, 'half', 1150],
  [12, 'ninetyNine', 99],
] as const)('%i rounded to %s is %i', (amount, name, expected) =>
  expect(roundTo(amount, roundings[name])).toBe(expected),
);

test('a rounded price ends as wanted and rounding again changes nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e7 }), fc.constantFrom(...Object.values(roundings)), (amount, rounding) => {
      const once = roundTo(amount, rounding);
      return (once - rounding.ending) % rounding.step === 0 && roundTo(once, rounding) === once && once > 0;
    }),
  );
});

test('up never lowers, down never raises above the smallest price', () => {
  fc.assert(
    fc.property(fc.integer({ min: 100, max: 1e7 }), (amount) => {
      const { step, ending } = roundings.ninetyNine;
      return (
        roundTo(amount, { step, ending, direction: 'up' }) >= amount &&
        roundTo(amount, { step, ending, direction: 'down' }) <= amount
      );
    }),
  );
});
