import sharp from 'sharp';
import { lookAt, type PhotoLook } from '../core/photo/look';
import { mostPixels } from './limits';

const longest = { pixels: 256, grey: 1_024 };

/**
 * What an original shows, as numbers.
 * @throws when it cannot be read as a picture
 */
export async function photoLook(bytes: Buffer): Promise<PhotoLook> {
  const large = await sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
    .rotate()
    .flatten({ background: '#ffffff' })
    .resize(longest.grey, longest.grey, { fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raw = { width: large.info.width, height: large.info.height, channels: 3 as const };
  const [small, grey] = await Promise.all([
    sharp(large.data, { raw })
      .resize(longest.pixels, longest.pixels, { fit: 'inside', withoutEnlargement: true })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true }),
    sharp(large.data, { raw }).greyscale().toColourspace('b-w').raw().toBuffer({ resolveWithObject: true }),
  ]);
  const { data } = small;
  return lookAt(
    {
      pixels: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
      width: small.info.width,
      height: small.info.height,
    },
    { pixels: grey.data, width: grey.info.width, height: grey.info.height },
  );
}
