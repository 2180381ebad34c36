import fc from 'fast-check';
import { isWellFormed } from './json';

/** Units of which one in two is half of a character. */
const units = fc.array(fc.oneof(fc.integer({ min: 0, max: 0xffff }), fc.integer({ min: 0xd800, max: 0xdfff })), {
  maxLength: 6,
});
/** The standard’s own way of saying it: such a text cannot be written as UTF-8 (ECMA-262, encodeURIComponent). */
const canBeWritten = (text: string): boolean => {
  try {
    encodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
};

test('a text is well-formed exactly when it can be written as UTF-8, wherever it stands', () => {
  fc.assert(
    fc.property(units, (codes) => {
      const text = String.fromCharCode(...codes);
      expect(isWellFormed(text)).toBe(canBeWritten(text));
      expect(isWellFormed({ a: [1, { b: text }] })).toBe(canBeWritten(text));
    }),
  );
});

test.each([['\ud800'], [{ a: [{ b: 'x\udfff' }] }], [{ '\ud83d': 1 }]])('half of a character is found: %j', (value) => {
  expect(isWellFormed(value)).toBe(false);
});

test.each([['🦊'], [{ '🦊': ['a', null, 1, true] }], [null]])('whole ones are fine: %j', (value) => {
  expect(isWellFormed(value)).toBe(true);
});
