import fc from 'fast-check';
import { nextPortions, type Progress, withDone } from './portions';

const start = (size: number): Progress => ({ at: 0, size, beyond: [] });

test('worked off side by side, in whatever order they end, every place is done once', () => {
  const orders = fc.array(fc.nat(5), { minLength: 400, maxLength: 400 });
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 120 }), fc.integer({ min: 1, max: 40 }), orders, (length, size, order) => {
      const seen = new Array<number>(length).fill(0);
      let progress = start(size);
      for (const pick of order) {
        const portions = nextPortions(progress, length, 3);
        const one = portions[pick % Math.max(1, portions.length)];
        if (!one) break;
        for (let at = one[0]; at < one[1]; at++) seen[at] = (seen[at] ?? 0) + 1;
        progress = withDone(progress, one);
      }
      expect(progress.at).toBe(length);
      expect(progress.beyond).toEqual([]);
      expect(seen.every((count) => count === 1)).toBe(true);
    }),
  );
});

test('portions of one look are apart from each other and from what is done', () => {
  expect(nextPortions({ at: 10, size: 5, beyond: [[15, 20]] }, 24, 3)).toEqual([
    [10, 15],
    [20, 24],
  ]);
  expect(nextPortions({ at: 10, size: 5, beyond: [[12, 20]] }, 100, 2)).toEqual([
    [10, 12],
    [20, 25],
  ]);
});
