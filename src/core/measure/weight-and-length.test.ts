import fc from 'fast-check';
import { fromPounds, parseLength, parseSides, parseWeight, readNumber, toInches, toPounds } from '.';

test.each([
  ['540 g', 540],
  ['540', 540],
  ['1.2 kg', 1200],
  ['0,5 kg', 500],
  ['1 lb 3 oz', 539],
  ['2lbs', 908],
  ['1lb3oz', 539],
  ['1 1/2 lb', 681],
  ['½ lb', 227],
  ['3/4 oz', 22],
  ['2 pounds and 3 ounces', 993],
  ['1 kg, 250 g', 1250],
])('weight %s is %i g', (text, grams) => expect(parseWeight(text)).toBe(grams));
test.each(['heavy', '12 stone', 'kg 3', ''])('“%s” is no weight', (text) => expect(parseWeight(text)).toBeNull());

test.each([
  ['195 mm', 195],
  ['19,5 cm', 195],
  ['7 1/2 in', 191],
  ['7.5"', 191],
  ['1/2 in', 13],
  ['7½ in', 191],
  ['½″', 13],
  ['1 ft 2 in', 356],
  ['1\' 2 1/4"', 362],
  ['0.3 m', 300],
  ['12 inches', 305],
])('length %s is %i mm', (text, mm) => expect(parseLength(text)).toBe(mm));
test.each(['long', '3 ells', '7 in 3', '1/0 in', ''])('“%s” is no length', (text) =>
  expect(parseLength(text)).toBeNull(),
);

test('there and back a parcel is never lighter or smaller, and hardly larger', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 50_000 }), (value) => {
      const grams = fromPounds(toPounds(value));
      const mm = Math.round(toInches(value) * 25.4);
      return grams >= value && grams <= value + 6 && mm >= value && mm <= value + 3;
    }),
  );
});

test.each([
  ['30 x 20 x 10 cm', [300, 200, 100]],
  ['12 × 8½ × 4 in', [305, 216, 102]],
  ['300mm x 20cm x 4in', [300, 200, 102]],
  ['30*20*10', [30, 20, 10]],
  ['30 x 20 cm', null],
  ['a x b x c', null],
])('sides %s are %j', (text, sides) => expect(parseSides(text)).toEqual(sides));

test.each([
  ['19,5', 19.5],
  ['7 1/2', 7.5],
  ['3/4', 0.75],
  ['7½', 7.5],
  ['½', 0.5],
  ['', null],
  ['1/0', null],
  ['x½', null],
])('%s reads as %j', (text, number) => expect(readNumber(text)).toBe(number));

test('a weight written as pounds and ounces is read as what it weighs, never lighter', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 15 }), (pounds, ounces) => {
      const grams = parseWeight(`${pounds} lb ${ounces} oz`) ?? 0;
      const exact = (pounds + ounces / 16) * 453.59237;
      expect(grams).toBeGreaterThanOrEqual(exact - 1e-6);
      expect(grams - exact).toBeLessThan(1);
    }),
  );
});

test.each([
  ['540 grams', 540],
  ['540 g', 540],
  ['¾ kg', 750],
  ['1 kilo', 1_000],
])('%s are %i grams', (text, grams) => expect(parseWeight(text)).toBe(grams));
