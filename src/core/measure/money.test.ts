import fc from 'fast-check';
import { amountToText, formatMoney, parseAmount, share } from './money';

describe('amounts as people type them', () => {
  test.each([
    ['12', 1200],
    ['12.5', 1250],
    ['12,50', 1250],
    ['1,234.50', 123450],
    ['1.234,50', 123450],
    ['1,234', 123400],
    ['€ 9', 900],
    ['-3.20', -320],
    ['−3.20', -320],
    ['1 234,50', 123450],
    ["1'234.50", 123450],
    ['EUR 12', 1200],
    ['12 EUR', 1200],
    ['12€', 1200],
    ['S$ 5', 500],
    ['-€4', -400],
    ['١٢', 1200],
    ['１２,5', 1250],
    ['1.234.567', 123456700],
  ])('%s is %i cents', (text, minor) => expect(parseAmount(text, 'EUR')).toBe(minor));

  // Read with its letters left out `1e3` was 13; `12.345` was a thousand times what was meant.
  test.each(['', 'free', '1.2345', '--', '1e3', '12abc34', '12.345', '1,23,4', '1-2', '5-', '12 34', 'abcd 5'])(
    '“%s” is no amount',
    (text) => expect(parseAmount(text, 'EUR')).toBeNull(),
  );

  test('what is written is read back the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        (minor) => parseAmount(amountToText(minor, 'EUR'), 'EUR') === minor,
      ),
    );
  });

  test('a currency with three decimals has three', () => {
    expect(parseAmount('1.234', 'KWD')).toBe(1_234);
    expect(parseAmount('12,5', 'KWD')).toBe(12_500);
    expect(parseAmount('1,234.500', 'KWD')).toBe(1_234_500);
    expect(amountToText(1_005, 'KWD')).toBe('1.005');
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        (minor) => parseAmount(amountToText(minor, 'KWD'), 'KWD') === minor,
      ),
    );
  });

  test('a currency without cents has none', () => {
    expect(parseAmount('1200', 'JPY')).toBe(1200);
    expect(amountToText(1200, 'JPY')).toBe('1200');
    expect(formatMoney(125000, 'EUR')).toBe('€1,250.00');
  });
});

describe('a share of an amount', () => {
  test('is rounded half up', () => {
    expect(share(1_000, 1_180)).toBe(118);
    expect(share(105, 1_000)).toBe(11);
    expect(share(104, 1_000)).toBe(10);
    expect(share(-105, 1_000)).toBe(-11);
  });

  test('is never off by more than half a unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e8 }),
        fc.integer({ min: 0, max: 10_000 }),
        (amount, rate) => Math.abs(share(amount, rate) - (amount * rate) / 10_000) <= 0.5,
      ),
    );
  });
});
