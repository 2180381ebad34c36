import sharp from 'sharp';
import { readPhotoReference } from '../core/photo/reference';
import type { MarketRules } from '../core/rules';
import { readDerivative, readWhole } from './derivatives';

const artworkSide = 6_000;

/** The colour of a picture's border, so that what is added to it does not show. */
async function borderColour(
  picture: Buffer,
  width: number,
  height: number,
): Promise<{ r: number; g: number; b: number }> {
  const strip = Math.max(1, Math.round(Math.min(width, height) * 0.02));
  const { channels } = await sharp(picture).extract({ left: 0, top: 0, width, height: strip }).stats();
  const [r = 255, g = 255, b = 255] = channels.map((channel) => Math.round(channel.mean));
  return { r, g, b };
}

/** A picture filled up (never cut) to a shape, width by height, in the colour of its border. */
export async function fillTo(picture: Buffer, [wide, high]: [number, number]): Promise<Buffer> {
  const { width = 1, height = 1 } = await sharp(picture).metadata();
  const ratio = wide / high;
  const newWidth = width / height < ratio ? Math.round(height * ratio) : width;
  const newHeight = width / height < ratio ? height : Math.round(width / ratio);
  const left = Math.floor((newWidth - width) / 2);
  const top = Math.floor((newHeight - height) / 2);
  return sharp(picture)
    .extend({
      left,
      right: newWidth - width - left,
      top,
      bottom: newHeight - height - top,
      background: await borderColour(picture, width, height),
    })
    .jpeg({ quality: 88 })
    .toBuffer();
}

/** What is uploaded for a photo's reference: the picture in the needed shape; artwork in its full size. */
export async function photoFor(reference: string, rules: MarketRules['photos']): Promise<Buffer> {
  const { hash, shape } = readPhotoReference(reference);
  if (rules.kind === 'artwork')
    return sharp(await readWhole(hash))
      .rotate()
      .resize(artworkSide, artworkSide, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 92 })
      .toBuffer();
  const picture = await readDerivative(hash, 'market');
  return shape ? fillTo(picture, shape) : picture;
}
