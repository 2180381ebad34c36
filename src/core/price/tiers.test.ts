import fc from 'fast-check';
import { readTier, tierFault, writeTier } from './tiers';

test('a tier is read as it is written', () => {
  expect(readTier('10: 4.50', 'EUR')).toEqual({ pieces: 10, price: 450 });
  expect(readTier(' 3:1,234.50 ', 'EUR')).toEqual({ pieces: 3, price: 123_450 });
  expect(readTier('5: 900', 'JPY')).toEqual({ pieces: 5, price: 900 });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9_999 }), fc.nat(1e7), (pieces, price) => {
      expect(readTier(writeTier({ pieces, price }, 'EUR'), 'EUR')).toEqual({ pieces, price });
    }),
  );
});

test.each(['', '10', '10: ', 'ten: 4', '10: 4.505', ': 4', '-1: 4'])('“%s” is none', (line) =>
  expect(readTier(line, 'EUR')).toBeNull(),
);

test.each([
  [['10: 4.50', '50: 4.00'], 500, null],
  [[], null, null],
  [['10: 4.50'], null, null],
  [['10: 5.00'], 500, 'costs less'],
  [['10: 4.50', '10: 4.00'], 500, 'more pieces'],
  [['10: 4.50', '20: 4.50'], 500, 'costs less'],
  [['ten: 4.50'], 500, 'is no tier'],
] as const)('tiers %j at %s', (lines, price, why) => {
  const fault = tierFault(lines, price, 'EUR');
  if (why === null) expect(fault).toBeNull();
  else expect(fault).toContain(why);
});
