import sharp from 'sharp';
import { readPhotoReference } from '../core/photo/reference';
import type { MarketRules } from '../core/rules';
import { readDerivative, readWhole } from './derivatives';
import { readPrint } from './print-store';

const artworkSide = 6_000;

type Colour = { r: number; g: number; b: number };
type Edge = 'left' | 'right' | 'top' | 'bottom';

/** The colour of a picture along one of its edges, so that what is added there does not show. */
async function edgeColour(picture: Buffer, width: number, height: number, edge: Edge): Promise<Colour> {
  const deep = Math.max(1, Math.round(Math.min(width, height) * 0.02));
  const isUpright = edge === 'left' || edge === 'right';
  const strip = {
    left: edge === 'right' ? width - deep : 0,
    top: edge === 'bottom' ? height - deep : 0,
    width: isUpright ? deep : width,
    height: isUpright ? height : deep,
  };
  // Made a picture of its own first: what is counted is counted of the whole input.
  const { channels } = await sharp(await sharp(picture).extract(strip).toColourspace('srgb').png().toBuffer()).stats();
  const [r = 255, g = 255, b = 255] = channels.map((channel) => Math.round(channel.mean));
  return { r, g, b };
}

/** A picture filled up (never cut) to a shape, width by height, on each side in the colour of that edge. */
export async function fillTo(picture: Buffer, [wide, high]: [number, number]): Promise<Buffer> {
  const { width = 1, height = 1 } = await sharp(picture).metadata();
  const ratio = wide / high;
  const isWider = width / height < ratio;
  const missing = isWider ? Math.round(height * ratio) - width : Math.round(width / ratio) - height;
  const before = Math.floor(missing / 2);
  const [first, last]: [Edge, Edge] = isWider ? ['left', 'right'] : ['top', 'bottom'];
  const [one, other] = await Promise.all([first, last].map((edge) => edgeColour(picture, width, height, edge)));
  const half = await sharp(picture)
    .extend({ [first]: before, background: one })
    .png({ compressionLevel: 0 })
    .toBuffer();
  return sharp(half)
    .extend({ [last]: missing - before, background: other })
    .jpeg({ quality: 88 })
    .toBuffer();
}

/** What is uploaded for a photo's reference: the picture in the needed shape; artwork in its full size, or as a printable. */
export async function photoFor(reference: string, rules: MarketRules['photos']): Promise<Buffer> {
  const { hash, shape, print } = readPhotoReference(reference);
  if (print !== null) return readPrint(reference);
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
