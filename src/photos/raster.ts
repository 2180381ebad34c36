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

/** The same copy as a file, for what looks at files. */
export const rasterPicture = ({ pixels, width, height }: Raster): Promise<Buffer> =>
  sharp(pixels, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 1 })
    .toBuffer();

/** Longest side of the picture that is made of a drawing of lines, which has no pixels of its own. */
const drawnSide = 6_000;
const usualDensity = 72;

/**
 * A drawing of lines as a picture, with its transparency.
 * @param drawing an SVG in which nothing is left that is fetched or run
 * @throws when it cannot be drawn
 */
export async function drawn(drawing: Buffer): Promise<Buffer> {
  const { width = 1, height = 1 } = await sharp(drawing).metadata();
  const density = Math.min(100_000, Math.max(1, (usualDensity * drawnSide) / Math.max(width, height)));
  return sharp(drawing, { density, limitInputPixels: mostPixels })
    .resize(drawnSide, drawnSide, { fit: 'inside' })
    .png()
    .toBuffer();
}
