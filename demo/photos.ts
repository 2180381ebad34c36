import sharp from 'sharp';
import { scene, type View } from './draw/scene';
import { drawCarton, drawFlaw, drawThing, type Thing } from './draw/things';

let grain: Promise<Buffer> | null = null;

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
    .png()
    .toBuffer();
  return grain;
};

/** One photograph of a thing, as a camera would have written it. `width` below 900 gives a small one. */
export async function photograph(thing: Thing, view: View, width = 900): Promise<Buffer> {
  const drawing = view === 'box' ? drawCarton(thing) : drawThing(thing);
  const svg = scene(drawing, view, thing.seed + view.length * 13, drawFlaw(thing.seed));
  const picture = await sharp(Buffer.from(svg))
    .composite([{ input: await filmGrain(), blend: 'soft-light' }])
    .jpeg({ quality: 84 })
    .toBuffer();
  return width === 900 ? picture : sharp(picture).resize(width).jpeg({ quality: 80 }).toBuffer();
}
