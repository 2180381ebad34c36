import sharp, { type OutputInfo } from 'sharp';
import { scene, type View } from './draw/scene';
import { drawCarton, drawFlaw, drawThing, type Thing } from './draw/things';

type Raw = { data: Buffer; info: OutputInfo };
let grain: Promise<Raw> | null = null;

/** Film grain, made once and laid over every picture. */
const filmGrain = () => {
  grain ??= sharp({
    create: {
      width: 900,
      height: 675,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 14 },
    },
  })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return grain;
};

/** One photograph of a thing, as a camera would have written it. `width` below 900 gives a small one. */
export async function photograph(thing: Thing, view: View, width = 900): Promise<Buffer> {
  const drawing = view === 'box' ? drawCarton(thing) : drawThing(thing);
  const svg = scene(drawing, view, thing.seed + view.length * 13, drawFlaw(thing.seed));
  const { data, info } = await filmGrain();
  const raw = { width: info.width, height: info.height, channels: info.channels };
  const picture = await sharp(Buffer.from(svg))
    .composite([{ input: data, raw, blend: 'soft-light' }])
    .jpeg({ quality: 84 })
    .toBuffer();
  return width === 900 ? picture : sharp(picture).resize(width).jpeg({ quality: 80 }).toBuffer();
}
