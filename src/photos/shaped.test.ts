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
