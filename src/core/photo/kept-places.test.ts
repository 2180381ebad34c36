import fc from 'fast-check';
import { keptChoice, takenPlaces } from './kept-places';

test('a photo that was worked on stands where it stood', () => {
  const taken = takenPlaces(['a', 'b', 'c'], ['a', 'x', 'c']);
  expect([...taken]).toEqual([['b', 'x']]);
  expect(keptChoice(['b~1x1', 'a', 'b'], taken)).toEqual(['x', 'a', 'x']);
  expect(keptChoice(['a', 'c'], taken)).toBeNull();
});

test('one that stands there twice is still there: choices keep it', () => {
  expect(takenPlaces(['a', 'b', 'a'], ['x', 'b', 'a']).size).toBe(0);
});

test('an order that only moves, adds or leaves out takes nobody’s place', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.string({ minLength: 1, maxLength: 3 }), { maxLength: 8 }), (photos) => {
      expect(takenPlaces(photos, [...photos].reverse()).size).toBe(0);
      expect(takenPlaces(photos, photos.slice(1)).size).toBe(0);
      expect(takenPlaces(photos, [...photos, 'added']).size).toBe(0);
    }),
  );
});
