import sharp, { type Sharp } from 'sharp';
import {
  applyTone,
  cleanBackdrop,
  isPlainTone,
  type Layer,
  layerBox,
  type PhotoRecipe,
  turnedSize,
} from '../core/photo';
import { wordsDrawing } from './badge';
import { mostPixels } from './limits';
import { photoStore } from './store';

export type Pixels = { data: Buffer; width: number; height: number; channels: 3 | 4 };

const white = '#ffffff';

async function rawOf(picture: Sharp): Promise<Pixels> {
  const { data, info } = await picture.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels === 4 ? 4 : 3 };
}

export const fromRaw = ({ data, width, height, channels }: Pixels): Sharp =>
  sharp(data, { raw: { width, height, channels } });

/** A layer as a picture of its own, `width` pixels wide. */
export async function layerPicture({ art }: Pick<Layer, 'art'>, width: number): Promise<Buffer> {
  if (art.kind === 'words')
    return sharp(Buffer.from(wordsDrawing(art, width)))
      .png()
      .toBuffer();
  const picture = sharp(await photoStore.read(art.hash)).resize(width, Math.max(1, Math.round(width / art.ratio)), {
    fit: 'fill',
  });
  if (art.colour === null) return picture.png().toBuffer();
  // Its own colours are left, what is see-through stays so.
  const { data, info } = await picture
    .ensureAlpha()
    .extractChannel('alpha')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return sharp({ create: { width: info.width, height: info.height, channels: 3, background: art.colour } })
    .joinChannel(data, { raw: { width: info.width, height: info.height, channels: 1 } })
    .png()
    .toBuffer();
}

/** Layers put on, each cut off at the picture's edge. */
async function withLayers(pixels: Pixels, layers: readonly Layer[]): Promise<Pixels> {
  const { width, height } = pixels;
  const parts = await Promise.all(
    layers.map(async (layer) => {
      const box = layerBox(layer, width, height);
      const [x, y, wide] = [Math.round(box.x), Math.round(box.y), Math.max(1, Math.round(box.width))];
      const picture = await layerPicture(layer, wide);
      const { width: w = 1, height: h = 1 } = await sharp(picture).metadata();
      const [left, top] = [Math.max(0, -x), Math.max(0, -y)];
      const part = {
        left,
        top,
        width: Math.min(w - left, width - Math.max(0, x)),
        height: Math.min(h - top, height - Math.max(0, y)),
      };
      if (part.width <= 0 || part.height <= 0) return [];
      return [
        { input: await sharp(picture).extract(part).png().toBuffer(), left: Math.max(0, x), top: Math.max(0, y) },
      ];
    }),
  );
  const seen = parts.flat();
  return seen.length ? rawOf(fromRaw(pixels).composite(seen)) : pixels;
}

/** Light and backdrop, pixel by pixel. */
async function withTone(pixels: Pixels, recipe: PhotoRecipe): Promise<Pixels> {
  if (isPlainTone(recipe) && !recipe.backdrop) return pixels;
  const { data, width, height } = pixels.channels === 4 ? pixels : await rawOf(fromRaw(pixels).ensureAlpha());
  const all = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
  applyTone(all, recipe);
  if (recipe.backdrop) cleanBackdrop(all, width, height, recipe.backdrop);
  return { data, width, height, channels: 4 };
}

/**
 * What a recipe makes of an original, upright, without see-through parts. The same recipe on the same original makes the
 * same bytes.
 * @param side longest side of the result in pixels; null for all there is. The original is never enlarged
 */
export async function renderRecipe(original: Buffer, recipe: PhotoRecipe, side: number | null): Promise<Pixels> {
  const open = () => sharp(original, { limitInputPixels: mostPixels, failOn: 'error' });
  const { width: w = 1, height: h = 1, orientation = 1 } = await open().metadata();
  const sides = orientation >= 5 ? { width: h, height: w } : { width: w, height: h };
  const turned = turnedSize(sides.width, sides.height, recipe.turn);
  const kept = { width: turned.width * (recipe.crop?.width ?? 1), height: turned.height * (recipe.crop?.height ?? 1) };
  const scale = side === null ? 1 : Math.min(1, side / Math.max(kept.width, kept.height));
  const upright = open().rotate().flatten({ background: white }).toColourspace('srgb');
  const sized =
    scale < 1
      ? upright.resize(Math.max(1, Math.round(sides.width * scale)), Math.max(1, Math.round(sides.height * scale)), {
          fit: 'fill',
        })
      : upright;
  let pixels = await rawOf(sized.removeAlpha());
  if (recipe.turn !== 0) pixels = await rawOf(fromRaw(pixels).rotate(recipe.turn, { background: white }));
  const { crop } = recipe;
  if (crop) {
    const left = Math.min(pixels.width - 1, Math.round(crop.x * pixels.width));
    const top = Math.min(pixels.height - 1, Math.round(crop.y * pixels.height));
    const width = Math.max(1, Math.min(pixels.width - left, Math.round(crop.width * pixels.width)));
    const height = Math.max(1, Math.min(pixels.height - top, Math.round(crop.height * pixels.height)));
    pixels = await rawOf(fromRaw(pixels).extract({ left, top, width, height }));
  }
  const lit = await withTone(pixels, recipe);
  const flat = lit.channels === 4 ? await rawOf(fromRaw(lit).removeAlpha()) : lit;
  return withLayers(flat, recipe.layers);
}
