import sharp from 'sharp';
import type { PrintPlan } from '../core/artwork/print-plan';
import { makePrintable } from './printable';

const drawing = sharp(
  Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect x="100" y="50" width="200" height="200" fill="#b03a62"/></svg>',
  ),
)
  .png()
  .toBuffer();
const plan = (part: Partial<PrintPlan> = {}): PrintPlan => ({
  cut: { x: 100, y: 50, width: 200, height: 200 },
  canvas: { width: 300, height: 400 },
  at: { x: 50, y: 100, width: 200, height: 200 },
  degrees: 0,
  background: '-',
  profile: 'srgb',
  dots: 150,
  ...part,
});
const pixelsOf = async (bytes: Buffer) => {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    at: (x: number, y: number) => [...data.subarray((y * info.width + x) * 4, (y * info.width + x) * 4 + 4)],
  };
};

test('it lies where the plan says, on nothing, in the measure of the file', async () => {
  const bytes = await makePrintable(await drawing, plan());
  const { width, height, at } = await pixelsOf(bytes);
  expect([width, height]).toEqual([300, 400]);
  expect(at(10, 10)).toEqual([0, 0, 0, 0]);
  expect(at(150, 200)).toEqual([176, 58, 98, 255]);
  expect(at(55, 105)).toEqual([176, 58, 98, 255]);
  expect(at(45, 105)[3]).toBe(0);
  expect(await sharp(bytes).metadata()).toMatchObject({ format: 'png', hasProfile: true });
});

test.each([
  ['upright', plan()],
  ['on a colour', plan({ background: '#efe6d2' })],
  ['turned', plan({ degrees: 12 })],
  ['partly outside', plan({ at: { x: -80, y: 320, width: 200, height: 200 } })],
  ['in other colours', plan({ profile: 'p3' })],
])('%s: the same input gives the same file', async (_how, one) => {
  const [first, second] = [await makePrintable(await drawing, one), await makePrintable(await drawing, one)];
  expect(first.equals(second)).toBe(true);
  expect(await sharp(first).metadata()).toMatchObject(one.canvas);
});

test('what lies outside is cut off; what lies wholly outside leaves an empty file', async () => {
  const half = await pixelsOf(
    await makePrintable(await drawing, plan({ at: { x: -100, y: 100, width: 200, height: 200 } })),
  );
  expect(half.at(5, 200)).toEqual([176, 58, 98, 255]);
  expect(half.at(120, 200)[3]).toBe(0);
  const gone = await pixelsOf(
    await makePrintable(await drawing, plan({ at: { x: 900, y: 900, width: 200, height: 200 } })),
  );
  expect([gone.width, gone.height, gone.at(150, 200)[3]]).toEqual([300, 400, 0]);
});

test('turned by a right angle it turns about its middle', async () => {
  const wide = plan({
    cut: { x: 100, y: 50, width: 200, height: 100 },
    at: { x: 50, y: 150, width: 200, height: 100 },
    degrees: 90,
  });
  const { at } = await pixelsOf(await makePrintable(await drawing, wide));
  expect(at(150, 110)[3]).toBe(255);
  expect(at(80, 200)[3]).toBe(0);
});

test('a colour under it makes a JPEG without transparency', async () => {
  const bytes = await makePrintable(await drawing, plan({ background: '#efe6d2' }));
  expect(await sharp(bytes).metadata()).toMatchObject({ format: 'jpeg', channels: 3 });
  const [r = 0, g = 0, b = 0] = (await pixelsOf(bytes)).at(10, 10);
  expect(Math.abs(r - 0xef) + Math.abs(g - 0xe6) + Math.abs(b - 0xd2)).toBeLessThan(12);
});

test('a picture that is stored lying is cut as it is seen upright', async () => {
  // Seen upright it is 300 wide and 400 high, red above and blue below.
  const lying = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#0000ff' } })
    .composite([
      { input: { create: { width: 200, height: 300, channels: 3, background: '#ff0000' } }, left: 0, top: 0 },
    ])
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
    .toBuffer();
  const { at } = await pixelsOf(
    await makePrintable(
      lying,
      plan({
        cut: { x: 0, y: 0, width: 300, height: 180 },
        canvas: { width: 300, height: 180 },
        at: { x: 0, y: 0, width: 300, height: 180 },
      }),
    ),
  );
  for (const [x, y] of [
    [5, 5],
    [295, 175],
    [150, 90],
  ] as const) {
    const [red = 0, , blue = 0] = at(x, y);
    expect(red - blue).toBeGreaterThan(200);
  }
});
