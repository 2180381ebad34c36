import fc from 'fast-check';
import {
  applyTone,
  backdropColour,
  backdropMask,
  cleanBackdrop,
  photoRecipeSchema,
  plainRecipe,
  proposeBalance,
  softMask,
  turnedSize,
} from '.';

type Colour = [number, number, number];

/** A disc on a backdrop that darkens a little downwards, as a lamp from above makes it. */
function disc(side: number, backdrop: Colour, thing: Colour, hole?: Colour): Uint8ClampedArray {
  const pixels = new Uint8ClampedArray(side * side * 4);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const far = Math.hypot(x - side / 2, y - side / 2) / side;
      const colour = hole && far < 0.08 ? hole : far < 0.25 ? thing : backdrop.map((one) => one - (y / side) * 20);
      pixels.set([...colour, 255], (y * side + x) * 4);
    }
  return pixels;
}
const at = (pixels: Uint8ClampedArray, side: number, x: number, y: number) => [
  ...pixels.subarray((y * side + x) * 4, (y * side + x) * 4 + 3),
];

test('the backdrop becomes white up to its edges, the thing stays as it was', () => {
  const side = 120;
  const pixels = disc(side, [180, 175, 168], [60, 40, 30]);
  cleanBackdrop(pixels, side, side, { reach: 20, softness: 3 });
  for (const [x, y] of [
    [0, 0],
    [119, 0],
    [0, 119],
    [119, 119],
    [60, 5],
  ] as const)
    expect(at(pixels, side, x, y)).toEqual([255, 255, 255]);
  expect(at(pixels, side, 60, 60)).toEqual([60, 40, 30]);
  expect(at(pixels, side, 60, 75)).toEqual([60, 40, 30]);
});

test('what has the backdrop’s colour inside the thing is not reached from an edge and stays', () => {
  const side = 120;
  const pixels = disc(side, [180, 175, 168], [60, 40, 30], [180, 175, 168]);
  cleanBackdrop(pixels, side, side, { reach: 20, softness: 0 });
  expect(at(pixels, side, 60, 60)).toEqual([180, 175, 168]);
});

test('more reach never takes less', () => {
  const side = 60;
  fc.assert(
    fc.property(
      fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)),
      fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)),
      fc.integer({ min: 1, max: 99 }),
      (backdrop, thing, reach) => {
        const pixels = disc(side, backdrop, thing);
        const sum = (mask: Uint8Array) => mask.reduce((total, one) => total + one, 0);
        const less = backdropMask(pixels, side, side, reach);
        const more = backdropMask(pixels, side, side, reach + 1);
        expect(sum(more)).toBeGreaterThanOrEqual(sum(less));
        for (const [index, one] of less.entries()) if (one) expect(more[index]).toBe(1);
      },
    ),
    { numRuns: 30 },
  );
});

test('the border is soft, and a mask that is all backdrop stays so', () => {
  const mask = new Uint8Array(100).fill(1, 0, 50);
  const soft = softMask(mask, 10, 10, 2);
  expect(soft[0]).toBeCloseTo(1);
  expect(soft[99]).toBeCloseTo(0);
  expect(soft[45]).toBeGreaterThan(0.2);
  expect(soft[45]).toBeLessThan(0.9);
  expect([...softMask(new Uint8Array(25).fill(1), 5, 5, 3)].every((one) => Math.abs(one - 1) < 1e-5)).toBe(true);
});

test('the backdrop’s colour is the middle of the outermost pixels', () => {
  expect(backdropColour(disc(40, [200, 200, 200], [0, 0, 0]), 40, 40)[0]).toBeGreaterThan(175);
});

const grey = (value: number) => new Uint8ClampedArray([value, value, value, 255]);

test('a plain tone changes nothing; light and contrast keep black and white', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 4, maxLength: 64 }), (bytes) => {
      const pixels = new Uint8ClampedArray(bytes.slice(0, bytes.length - (bytes.length % 4)));
      const before = [...pixels];
      applyTone(pixels, plainRecipe);
      expect([...pixels]).toEqual(before);
    }),
  );
  for (const brightness of [-100, -30, 40, 100]) {
    for (const [value, expected] of [
      [0, 0],
      [255, 255],
    ] as const) {
      const pixel = grey(value);
      applyTone(pixel, { ...plainRecipe, brightness });
      expect(pixel[0]).toBe(expected);
    }
  }
});

test('brighter is never darker, in any place', () => {
  fc.assert(
    fc.property(
      fc.nat(255),
      fc.integer({ min: -100, max: 99 }),
      fc.integer({ min: -100, max: 100 }),
      (value, brightness, contrast) => {
        const less = grey(value);
        const more = grey(value);
        applyTone(less, { ...plainRecipe, brightness, contrast });
        applyTone(more, { ...plainRecipe, brightness: brightness + 1, contrast });
        expect(more[0] ?? 0).toBeGreaterThanOrEqual(less[0] ?? 0);
      },
    ),
  );
});

test('the proposed balance makes a tinted grey card grey', () => {
  const card = new Uint8ClampedArray(4_000);
  for (let index = 0; index < 1_000; index++) card.set([190, 175, 150, 255], index * 4);
  applyTone(card, { ...plainRecipe, ...proposeBalance(card) });
  const [red = 0, green = 0, blue = 0] = card;
  expect(Math.max(red, green, blue) - Math.min(red, green, blue)).toBeLessThanOrEqual(6);
  expect(proposeBalance(new Uint8ClampedArray(4_000))).toEqual({ warmth: 0, tint: 0 });
});

test.each([
  [400, 300, 0, [400, 300]],
  [400, 300, 90, [300, 400]],
  [400, 300, 180, [400, 300]],
  [100, 100, 45, [141, 141]],
])('%i × %i turned by %i° fits in %j', (width, height, degrees, [w, h]) =>
  expect(turnedSize(width, height, degrees)).toEqual({ width: w, height: h }),
);

test('a recipe has bounds', () => {
  expect(photoRecipeSchema.safeParse(plainRecipe).success).toBe(true);
  expect(photoRecipeSchema.safeParse({ ...plainRecipe, brightness: 101 }).success).toBe(false);
  expect(photoRecipeSchema.safeParse({ ...plainRecipe, badge: { text: '', corner: 'top-left' } }).success).toBe(false);
});
