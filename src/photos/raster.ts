import sharp from 'sharp';
import type { Raster } from '../core/artwork';
import { mostPixels } from './limits';

/** Longest side of the small copy in which a picture is looked at. */
const side = 320;

/** A small copy of a picture as pixels with their transparency, upright. */
export async function rasterOf(bytes: Buffer): Promise<Raster> {
  const { data, info } = await sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
    .rotate()
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { pixels: data, width: info.width, height: info.height };
}
