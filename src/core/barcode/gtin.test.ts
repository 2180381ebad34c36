import fc from 'fast-check';
import { isGtin, isIsbn10 } from './gtin';

test.each(['0306406152', '080442957X', '080442957x'])('%s is an ISBN of ten signs', (text) =>
  expect(isIsbn10(text)).toBe(true),
);
test.each(['0306406153', '0804429570', '030640615', 'X306406152', '03064061522'])('%s is none', (text) =>
  expect(isIsbn10(text)).toBe(false),
);

test.each(['96385074', '036000291452', '4006381333931', '00012345600012'])('%s is a GTIN', (text) =>
  expect(isGtin(text)).toBe(true),
);

test('one wrong digit, or two neighbours that changed places in an ISBN, are seen', () => {
  const nine = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 9, maxLength: 9 });
  const withCheck = (digits: number[]) => {
    const sum = digits.reduce((total, digit, at) => total + (10 - at) * digit, 0);
    const check = (11 - (sum % 11)) % 11;
    return digits.join('') + (check === 10 ? 'X' : check);
  };
  fc.assert(
    fc.property(nine, fc.nat(8), fc.integer({ min: 1, max: 9 }), (digits, at, more) => {
      const right = withCheck(digits);
      const wrong = digits.map((digit, index) => (index === at ? (digit + more) % 10 : digit)).join('') + right.at(-1);
      const swapped = right.replace(/^(.)(.)/, '$2$1');
      return isIsbn10(right) && !isIsbn10(wrong) && (swapped === right || !isIsbn10(swapped));
    }),
  );
});
