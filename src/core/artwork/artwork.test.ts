import fc from 'fast-check';
import {
  contrastOf,
  differing,
  luminanceOf,
  noDetails,
  type Raster,
  type Rgb,
  readColour,
  readsWell,
  scoreGround,
  tonesOf,
  visibleOf,
} from '.';

const white = { name: 'White', colour: [255, 255, 255] as const };
const black = { name: 'Black', colour: [0, 0, 0] as const };

/** A picture by what stands at each place: nothing, or a colour. */
function drawn(width: number, height: number, at: (x: number, y: number) => Rgb | null): Raster {
  const pixels = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const colour = at(x, y);
      if (colour) pixels.set([...colour, 255], (y * width + x) * 4);
    }
  return { pixels, width, height };
}
const inside = (x: number, y: number) => x >= 10 && x < 30 && y >= 8 && y < 24;
const square = (colour: Rgb) => drawn(40, 40, (x, y) => (inside(x, y) ? colour : null));
const score = (raster: Raster, ground: typeof white | typeof black) => scoreGround(tonesOf(raster), ground);

test('contrasts are those of the standard, whichever way round', () => {
  expect(contrastOf(luminanceOf([255, 255, 255]), luminanceOf([0, 0, 0]))).toBeCloseTo(21, 5);
  // 4.54 : 1, the grey that just passes on white.
  expect(contrastOf(luminanceOf([118, 118, 118]), 1)).toBeCloseTo(4.54, 2);
  const colour = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255));
  fc.assert(
    fc.property(colour, colour, (a, b) => {
      const [x, y] = [luminanceOf(a), luminanceOf(b)];
      expect(contrastOf(x, y)).toBe(contrastOf(y, x));
      expect(contrastOf(x, y)).toBeGreaterThanOrEqual(1);
      expect(contrastOf(x, y)).toBeLessThanOrEqual(21.000001);
    }),
  );
  expect(readColour('#b03a62')).toEqual([176, 58, 98]);
  expect(readColour('blue')).toBeNull();
});

test('white on white and black on black are lost, the other way round they read', () => {
  expect(score(square([255, 255, 255]), white)).toMatchObject({
    score: 0,
    why: expect.stringContaining('Light on light'),
  });
  expect(score(square([250, 250, 250]), black).score).toBe(100);
  expect(score(square([5, 5, 5]), black)).toMatchObject({ why: expect.stringContaining('Dark on dark') });
  expect(score(square([5, 5, 5]), white).score).toBeGreaterThanOrEqual(readsWell);
});

test('a white shape with a dark outline reads on white; without it it does not', () => {
  const rim = (x: number, y: number) => x < 13 || x >= 27 || y < 11 || y >= 21;
  const outlined = drawn(40, 40, (x, y) => (!inside(x, y) ? null : rim(x, y) ? [10, 10, 10] : [255, 255, 255]));
  expect(score(outlined, white).score).toBeGreaterThanOrEqual(readsWell);
  expect(score(outlined, black).score).toBeLessThan(readsWell);
});

test('what fills its whole area reads anywhere; what is empty nowhere', () => {
  expect(
    score(
      drawn(20, 20, () => [255, 255, 255]),
      white,
    ).score,
  ).toBe(100);
  expect(
    score(
      drawn(20, 20, () => null),
      white,
    ),
  ).toMatchObject({ score: 0, why: expect.stringContaining('nothing') });
});

test('what is visible: its box and its middle by weight', () => {
  expect(visibleOf(square([1, 1, 1]))).toEqual({
    box: { x: 0.25, y: 0.2, width: 0.5, height: 0.4 },
    centre: { x: 0.5, y: 0.4 },
  });
  // Heavier below: the eye's middle lies below that of the box.
  const heavy = drawn(20, 20, (x, y) => (y >= 16 || (x === 10 && y >= 4) ? [0, 0, 0] : null));
  const seen = visibleOf(heavy);
  expect(seen?.box).toEqual({ x: 0, y: 0.2, width: 1, height: 0.8 });
  expect(seen?.centre.y).toBeGreaterThan(0.2 + 0.4);
  expect(visibleOf(drawn(5, 5, () => null))).toBeNull();
});

test('what a file says otherwise is told; what it does not say is no difference', () => {
  const ours = { ...noDetails, title: 'Harbour', tags: ['sea', 'boat'] };
  expect(differing(ours, noDetails)).toEqual([]);
  expect(differing(ours, { ...ours, tags: ['sea'] })).toEqual(['tags']);
  expect(differing(ours, { ...ours, title: 'Quay', audience: 'Children' })).toEqual(['title', 'audience']);
});
