import fc from 'fast-check';
import {
  anchors,
  boxThrough,
  coveredShare,
  cropAround,
  emptyShare,
  type Layer,
  layerBox,
  lightByItself,
  lookAt,
  madeSize,
  type PhotoLook,
  placeAt,
  plainRecipe,
  readRecipe,
  recipeWords,
  sharpness,
  turnedBox,
} from '.';
import { flawBounds } from './flaws';

/** A dark square thing on a light ground, as RGBA and as grey, both of the same size. */
function picture(
  side: number,
  thing: { x: number; y: number; size: number },
  shades: [ground: number, front: number] = [225, 40],
) {
  const pixels = new Uint8ClampedArray(side * side * 4);
  const grey = new Uint8Array(side * side);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const isFront = x >= thing.x && x < thing.x + thing.size && y >= thing.y && y < thing.y + thing.size;
      const shade = isFront ? shades[1] : shades[0];
      grey[y * side + x] = shade;
      pixels.set([shade, shade, shade, 255], (y * side + x) * 4);
    }
  return { pixels, grey };
}
const look = (side: number, thing: Parameters<typeof picture>[1], shades?: [number, number]): PhotoLook => {
  const { pixels, grey } = picture(side, thing, shades);
  return lookAt({ pixels, width: side, height: side }, { pixels: grey, width: side, height: side });
};

test('what stands in front is found, specks of dust are not', () => {
  const seen = look(128, { x: 32, y: 48, size: 40 });
  expect(seen.box?.x).toBeCloseTo(0.25, 2);
  expect(seen.box?.y).toBeCloseTo(0.375, 2);
  expect(seen.box?.width).toBeCloseTo(0.3125, 2);
  expect(emptyShare(seen.box)).toBeCloseTo(1 - 0.3125 ** 2, 2);
  const { pixels, grey } = picture(128, { x: 32, y: 48, size: 40 });
  pixels.set([0, 0, 0, 255], (2 * 128 + 2) * 4);
  expect(lookAt({ pixels, width: 128, height: 128 }, { pixels: grey, width: 128, height: 128 }).box).toEqual(seen.box);
});

test('a picture of one colour shows nothing in front, and says so', () => {
  const seen = look(128, { x: 0, y: 0, size: 0 });
  expect(seen.box).toBeNull();
  expect(emptyShare(seen.box)).toBe(0);
});

test('dark and blurred pictures are told; a dark thing on a light ground is neither', () => {
  const { bright, middle } = flawBounds.darkBelow;
  const isDark = (one: PhotoLook) => one.bright < bright && one.middle < middle;
  expect(isDark(look(128, { x: 32, y: 32, size: 60 }, [50, 20]))).toBe(true);
  expect(isDark(look(128, { x: 32, y: 32, size: 60 }))).toBe(false);
  const sharp = look(256, { x: 64, y: 64, size: 100 });
  expect(sharp.sharp).toBeGreaterThan(flawBounds.blurredBelow);
  const { grey } = picture(256, { x: 64, y: 64, size: 100 });
  // The mean of a wide neighbourhood: edges become slopes.
  const soft = grey.map((_, at) => {
    const [x, y] = [at % 256, Math.floor(at / 256)];
    let [sum, count] = [0, 0];
    for (let dy = -9; dy <= 9; dy += 1)
      for (let dx = -9; dx <= 9; dx += 1) {
        const value = x + dx >= 0 && x + dx < 256 ? grey[(y + dy) * 256 + x + dx] : undefined;
        if (value === undefined) continue;
        sum += value;
        count++;
      }
    return Math.round(sum / count);
  });
  expect(sharpness(soft, 256, 256)).toBeLessThan(sharpness(grey, 256, 256) / 20);
});

const part = fc.double({ min: 0, max: 0.6, noNaN: true });
const box = fc.record({
  x: part,
  y: part,
  width: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
  height: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
});
const sides = fc.record({ width: fc.integer({ min: 200, max: 4_000 }), height: fc.integer({ min: 200, max: 4_000 }) });

test('a crop has its ratio, lies within the picture, and holds the thing where that fits', () => {
  fc.assert(
    fc.property(
      box,
      sides,
      fc.constantFrom(0, 90, -90, 180, 4.5),
      fc.constantFrom(1, 0.8),
      fc.boolean(),
      (thing, of, turn, ratio, tight) => {
        const around = turnedBox(thing, of, turn);
        const crop = cropAround(around, of, turn, ratio, tight);
        expect(crop.x).toBeGreaterThanOrEqual(0);
        expect(crop.x + crop.width).toBeLessThanOrEqual(1.0002);
        expect(crop.y + crop.height).toBeLessThanOrEqual(1.0002);
        const made = madeSize(of.width, of.height, { turn, crop });
        expect(Math.abs(made.width - made.height * ratio)).toBeLessThanOrEqual(2.5);
        const whole = madeSize(of.width, of.height, { turn, crop: null });
        const fits =
          around.width * whole.width <= Math.min(whole.width, whole.height * ratio) &&
          around.height * whole.height <= Math.min(whole.height, whole.width / ratio);
        if (!fits) return;
        expect(crop.x).toBeLessThanOrEqual(around.x + 0.0002);
        expect(crop.x + crop.width).toBeGreaterThanOrEqual(around.x + around.width - 0.0002);
        expect(crop.y + crop.height).toBeGreaterThanOrEqual(around.y + around.height - 0.0002);
      },
    ),
  );
});

const art: Layer['art'] = { kind: 'words', shape: 'box', words: 'Tested', ground: '#000000', ink: '#ffffff', ratio: 3 };

test('a badge that is put somewhere stands there, and in proportion on a picture twice as large', () => {
  fc.assert(
    fc.property(sides, fc.integer({ min: 50, max: 500 }), part, part, ({ width, height }, size, u, v) => {
      const at = { x: u * width, y: v * height };
      const place = placeAt(art, size, at, width, height);
      const unit = Math.min(width, height) / 1_000;
      const there = layerBox({ art, place }, width, height);
      expect(Math.abs(there.x - at.x)).toBeLessThanOrEqual(unit);
      expect(Math.abs(there.y - at.y)).toBeLessThanOrEqual(unit);
      const twice = layerBox({ art, place }, width * 2, height * 2);
      for (const side of ['x', 'y', 'width', 'height'] as const) expect(twice[side]).toBeCloseTo(there[side] * 2, 5);
    }),
  );
});

test.each(anchors)('anchored %s it stays by its corner or edge on a picture of another shape', (anchor) => {
  const place = { anchor, dx: 0, dy: 0, size: 200 };
  const wide = layerBox({ art, place }, 3_000, 1_000);
  if (anchor.includes('left')) expect(wide.x).toBe(0);
  if (anchor.includes('right')) expect(wide.x + wide.width).toBe(3_000);
  if (anchor.includes('top')) expect(wide.y).toBe(0);
  if (anchor.includes('bottom')) expect(wide.y + wide.height).toBeCloseTo(1_000);
  if (anchor === 'middle') expect([wide.x + wide.width / 2, wide.y + wide.height / 2]).toEqual([1_500, 500]);
});

test('what a badge covers is told, also once the picture is turned and cropped', () => {
  const seen = look(128, { x: 96, y: 0, size: 32 });
  const of = { width: 1_000, height: 1_000 };
  const corner = { x: 760, y: 10, width: 200, height: 200 };
  expect(coveredShare(seen, of, plainRecipe, corner, of)).toBeGreaterThan(0.9);
  expect(coveredShare(seen, of, plainRecipe, { ...corner, x: 100 }, of)).toBe(0);
  // Turned clockwise the upper right comes to lie at the lower right.
  expect(coveredShare(seen, of, { turn: 90, crop: null }, { ...corner, y: 780 }, of)).toBeGreaterThan(0.9);
  const crop = { x: 0.5, y: 0, width: 0.5, height: 0.5 };
  expect(
    coveredShare(seen, of, { turn: 0, crop }, { x: 300, y: 50, width: 150, height: 150 }, { width: 500, height: 500 }),
  ).toBeGreaterThan(0.9);
  expect(boxThrough(seen, of, { turn: 0, crop })?.x).toBeCloseTo(0.5, 1);
  expect(boxThrough(seen, of, { turn: 0, crop: { x: 0, y: 0.5, width: 0.5, height: 0.5 } })).toBeNull();
});

test('light by itself brightens what is dark and leaves what is well', () => {
  const dim = lightByItself({
    ...look(64, { x: 16, y: 16, size: 20 }),
    dark: 10,
    middle: 60,
    bright: 120,
    warmth: 0,
    tint: 0,
  });
  expect(dim.brightness).toBeGreaterThan(20);
  expect(
    lightByItself({ ...look(64, { x: 16, y: 16, size: 20 }), dark: 20, middle: 180, bright: 245, warmth: 0, tint: 0 }),
  ).toEqual({ brightness: 0, contrast: 0, warmth: 0, tint: 0 });
});

test('recipes of before are read, equal ones are equal words, and what is none is plain', () => {
  const old = { turn: 90, badge: { text: 'Tested', corner: 'bottom-right' } };
  expect(readRecipe(old)).toMatchObject({
    turn: 90,
    layers: [{ art: { words: 'Tested' }, place: { anchor: 'bottom-right' } }],
  });
  for (const none of [null, 'x', { turn: 'far' }, { crop: { x: 9 } }]) expect(readRecipe(none)).toEqual(plainRecipe);
  const crop = { x: 0.123456, y: 0, width: 0.5, height: 0.500001 };
  expect(recipeWords({ ...plainRecipe, crop })).toBe(
    recipeWords({ ...plainRecipe, crop: { ...crop, x: 0.12346, height: 0.5 } }),
  );
});
