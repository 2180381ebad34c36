import sharp from 'sharp';
import { fillTo } from './shaped';

const picture = (width: number, height: number, background = '#884422') =>
  sharp({ create: { width, height, channels: 3, background } })
    .jpeg()
    .toBuffer();
const sides = async (bytes: Buffer) => {
  const { width, height } = await sharp(bytes).metadata();
  return [width, height];
};

test.each([
  [900, 675, [1, 1], [900, 900]],
  [675, 900, [1, 1], [900, 900]],
  [800, 800, [1, 1], [800, 800]],
  [400, 1_000, [80, 100], [800, 1_000]],
  [3_000, 1_000, [191, 100], [3_000, 1_571]],
] as [number, number, [number, number], [number, number]][])(
  '%i × %i filled up to %j is %j',
  async (width, height, shape, expected) =>
    expect(await sides(await fillTo(await picture(width, height), shape))).toEqual(expected),
);

test('what is added has the colour of the border, and nothing is cut', async () => {
  const filled = await fillTo(await picture(600, 300, '#336699'), [1, 1]);
  const { channels } = await sharp(filled).stats();
  for (const [index, value] of [0x33, 0x66, 0x99].entries())
    expect(Math.abs((channels[index]?.mean ?? 0) - value)).toBeLessThan(4);
  expect(channels.every((channel) => channel.stdev < 4)).toBe(true);
});

test('a dark thing in the middle does not colour what is added; each side has the colour of its own edge', async () => {
  const half = (background: string, left: number) => ({
    input: { create: { width: 300, height: 300, channels: 3 as const, background } },
    left,
    top: 0,
  });
  const thing = {
    input: { create: { width: 400, height: 240, channels: 3 as const, background: '#101010' } },
    left: 100,
    top: 30,
  };
  const shot = await sharp(await picture(600, 300))
    .composite([half('#e0dcd0', 0), half('#c0bcb0', 300), thing])
    .png()
    .toBuffer();
  const colourAt = async (bytes: Buffer, x: number, y: number) => {
    const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
    return [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
  };
  const near = (seen: number[], wanted: number[]) => {
    for (const [at, value] of seen.entries()) expect(Math.abs(value - (wanted[at] ?? 0))).toBeLessThan(6);
  };
  near(await colourAt(await fillTo(shot, [1, 1]), 300, 40), [0xd0, 0xcc, 0xc0]);
  const wider = await fillTo(shot, [3, 1]);
  near(await colourAt(wider, 60, 150), [0xe0, 0xdc, 0xd0]);
  near(await colourAt(wider, 840, 150), [0xc0, 0xbc, 0xb0]);
});

test('greys are filled up in their grey', async () => {
  const grey = await sharp(await picture(600, 300, '#555555'))
    .greyscale()
    .jpeg()
    .toBuffer();
  const { channels } = await sharp(await fillTo(grey, [1, 1]))
    .toColourspace('srgb')
    .stats();
  for (const channel of channels) expect([Math.abs(channel.mean - 0x55) < 4, channel.stdev < 4]).toEqual([true, true]);
});
