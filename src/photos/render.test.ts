import sharp from 'sharp';
import { type Layer, type PhotoRecipe, plainRecipe } from '../core/photo';
import { wordsRatio } from './badge';
import { drawLine, unknownSigns } from './letters';
import { madeHash } from './made';
import { type Pixels, renderRecipe } from './render';

const recipe = (part: Partial<PhotoRecipe>): PhotoRecipe => ({ ...plainRecipe, ...part });
const at = ({ data, width, channels }: Pixels, x: number, y: number) => [
  ...data.subarray((y * width + x) * channels, (y * width + x) * channels + 3),
];
/** Left red, right blue; 400 × 200. */
const halves = () =>
  sharp({ create: { width: 400, height: 200, channels: 3, background: '#c02020' } }).composite([
    {
      input: { create: { width: 200, height: 200, channels: 3, background: '#2020c0' } },
      left: 200,
      top: 0,
    },
  ]);
const isNear = (pixel: number[], wanted: number[]) =>
  pixel.every((one, channel) => Math.abs(one - (wanted[channel] ?? 0)) < 12);
const red = [192, 32, 32];
const blue = [32, 32, 192];
const words: Layer['art'] = {
  kind: 'words',
  shape: 'box',
  words: 'Tested',
  ground: '#00aa00',
  ink: '#ffffff',
  ratio: wordsRatio({ shape: 'box', words: 'Tested' }),
};

test('the same recipe on the same original makes the same bytes, and another hash than any other', async () => {
  const original = await halves().jpeg().toBuffer();
  const all = recipe({
    turn: 7.5,
    crop: { x: 0.1, y: 0.2, width: 0.5, height: 0.6 },
    brightness: 20,
    backdrop: { reach: 12, softness: 2 },
    layers: [{ badge: 1, art: words, place: { anchor: 'top', dx: 0, dy: 20, size: 400 } }],
  });
  const [once, again] = [await renderRecipe(original, all, 300), await renderRecipe(original, all, 300)];
  expect(once.data.equals(again.data)).toBe(true);
  expect(madeHash('a', all)).toBe(madeHash('a', all));
  expect(madeHash('a', all)).not.toBe(madeHash('b', all));
  expect(madeHash('a', plainRecipe)).toBe('a');
});

test('upright first, then turned, then cropped', async () => {
  // Lies on its side, as a camera writes it: upright its left half is above.
  const lying = await halves().withMetadata({ orientation: 6 }).jpeg({ quality: 95 }).toBuffer();
  const upright = await renderRecipe(lying, plainRecipe, null);
  expect([upright.width, upright.height]).toEqual([200, 400]);
  expect(isNear(at(upright, 100, 50), red)).toBe(true);
  const turned = await renderRecipe(lying, recipe({ turn: 90 }), null);
  expect([turned.width, turned.height]).toEqual([400, 200]);
  expect(isNear(at(turned, 350, 100), red)).toBe(true);
  const cropped = await renderRecipe(lying, recipe({ crop: { x: 0, y: 0.5, width: 1, height: 0.5 } }), null);
  expect([cropped.width, cropped.height]).toEqual([200, 200]);
  expect(isNear(at(cropped, 100, 20), blue)).toBe(true);
});

test('smaller than wanted it is never enlarged; a size is the longest side', async () => {
  const original = await halves().png().toBuffer();
  expect(await renderRecipe(original, plainRecipe, 100)).toMatchObject({ width: 100, height: 50 });
  expect(await renderRecipe(original, plainRecipe, 4_000)).toMatchObject({ width: 400, height: 200 });
});

test('a badge stands in its corner, in proportion, and is cut off at the edge', async () => {
  const original = await halves().png().toBuffer();
  const put = (place: Layer['place']) => recipe({ layers: [{ badge: null, art: words, place }] });
  const corner = await renderRecipe(original, put({ anchor: 'bottom-right', dx: 50, dy: 50, size: 500 }), null);
  expect(isNear(at(corner, 385, 187), [0, 170, 0])).toBe(true);
  expect(isNear(at(corner, 15, 15), red)).toBe(true);
  const half = await renderRecipe(original, put({ anchor: 'top-left', dx: -250, dy: 100, size: 500 }), null);
  expect(isNear(at(half, 2, 30), [0, 170, 0])).toBe(true);
  const outside = await renderRecipe(original, put({ anchor: 'top-left', dx: -900, dy: 100, size: 500 }), null);
  expect(isNear(at(outside, 2, 30), red)).toBe(true);
});

test.each([
  ['in four printing colours', () => halves().toColourspace('cmyk').jpeg().toBuffer()],
  ['of sixteen bits', () => halves().toColourspace('rgb16').png().toBuffer()],
  ['with a see-through ground', () => halves().ensureAlpha(0.5).png().toBuffer()],
  ['in greys', () => halves().greyscale().png().toBuffer()],
  ['with an odd profile', () => halves().withIccProfile('p3').jpeg().toBuffer()],
])('a picture %s becomes one of three colours of eight bits', async (_, make) => {
  const made = await renderRecipe(await make(), recipe({ contrast: 5 }), 120);
  expect(made).toMatchObject({ width: 120, height: 60, channels: 3 });
  expect(made.data).toHaveLength(120 * 60 * 3);
});

test('of an animated picture the first is taken; a damaged one is refused', async () => {
  const frames = await sharp([await halves().png().toBuffer(), await halves().negate().png().toBuffer()], {
    join: { animated: true },
  })
    .webp({ loop: 0 })
    .toBuffer();
  expect(await renderRecipe(frames, plainRecipe, null)).toMatchObject({ width: 400, height: 200 });
  const whole = await halves().jpeg().toBuffer();
  await expect(renderRecipe(whole.subarray(0, whole.length / 2), plainRecipe, 100)).rejects.toThrow();
});

test('words are outlines in three alphabets; what cannot be drawn is told', () => {
  for (const text of ['Ships tomorrow', 'Größe', 'Проверено', 'Δοκιμή']) {
    expect(unknownSigns(text)).toEqual([]);
    expect(drawLine(text, 100).width).toBeGreaterThan(100);
  }
  expect(unknownSigns('早い OK')).toEqual(['早', 'い']);
});
