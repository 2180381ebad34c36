import fc from 'fast-check';
import { clipMove, clipWords, framesEach, longestClip, moveFilter, photosIn } from './clip';

test('no clip is longer than wanted, and every photo is seen long enough', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 40 }), fc.integer({ min: 3, max: longestClip }), (count, seconds) => {
      const shown = photosIn(count, seconds);
      const frames = framesEach(shown, seconds);
      expect(shown * frames).toBeLessThanOrEqual(seconds * 25);
      expect(frames).toBeGreaterThanOrEqual(20);
      expect(frames).toBeLessThanOrEqual(63);
      expect(shown).toBeGreaterThan(1);
    }),
  );
});

test('moves stay within the picture, and take turns', () => {
  const moves = Array.from({ length: 6 }, (_, at) => clipMove(at));
  for (const { from, to } of moves)
    for (const { zoom, x, y } of [from, to]) {
      expect(zoom).toBeGreaterThanOrEqual(1);
      for (const place of [x, y]) expect(place >= 0 && place <= 1).toBe(true);
    }
  expect(moves[4]).toEqual(moves[0]);
  expect(moveFilter(clipMove(0), 50, { width: 1_920, height: 1_080 })).toContain(':d=50:s=1920x1080:fps=25');
});

test('equal plans are equal words', () => {
  expect(clipWords({ photos: ['a', 'b'], seconds: 15 })).toBe(clipWords({ seconds: 15, photos: ['a', 'b'] }));
  expect(clipWords({ photos: ['b', 'a'], seconds: 15 })).not.toBe(clipWords({ photos: ['a', 'b'], seconds: 15 }));
});
