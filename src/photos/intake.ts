import { createHash } from 'node:crypto';
import decodeHeic from 'heic-decode';
import sharp from 'sharp';
import { NettingError } from '../core/errors';
import { makeDerivatives, removeDerivatives } from './derivatives';
import { mostPixels } from './limits';
import { photoStore } from './store';

export const maxPhotoBytes = 30_000_000;
/** Artwork of 10,000 × 10,000 pixels is larger than any photo. */
export const maxArtworkBytes = 150_000_000;
const readable: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };
const readableArtwork: Record<string, string> = { ...readable, tiff: 'image/tiff' };

/** Phones' pictures in a format that only their makers' own programs decode: `ftyp` and its brand at the beginning. */
const isHeic = (bytes: Buffer): boolean =>
  /^ftyp(heic|heix|heim|heis|hevc|hevx|mif1|msf1)/.test(bytes.subarray(4, 12).toString('latin1'));

export type StoredPhoto = { hash: string; mime: string; width: number; height: number; bytes: number };

/**
 * A phone's picture as a JPEG of the same size; that is what is kept of it. Decoded by a package of its own: the rest of the
 * house cannot read it.
 */
async function fromHeic(bytes: Buffer, label: string): Promise<Buffer> {
  try {
    const { width, height, data } = await decodeHeic({ buffer: bytes });
    if (width * height > mostPixels) throw new Error('too many pixels');
    return await sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
      raw: { width, height, channels: 4 },
    })
      .removeAlpha()
      .jpeg({ quality: 92 })
      .toBuffer();
  } catch {
    throw new NettingError('photo-unreadable', `${label} is a HEIC picture that cannot be read here`, {
      field: 'photos',
      fix: 'Set the phone’s camera to its most compatible format (JPEG), or save the picture as JPEG, and add it again',
    });
  }
}

/**
 * Checks and stores an uploaded photo by what it is, not by what its name says. Size as seen upright (EXIF rotation).
 * @param sizes whether its other sizes are made now, or when they are first looked at; who puts that off has to have read
 * the picture to its end
 */
export async function storePhoto(
  given: Buffer,
  name: string,
  sizes: 'now' | 'later' = 'now',
  as: 'photo' | 'artwork' = 'photo',
): Promise<StoredPhoto> {
  const label = name.slice(0, 80) || 'The file';
  const most = as === 'artwork' ? maxArtworkBytes : maxPhotoBytes;
  if (given.length > most)
    throw new NettingError('photo-too-large', `${label} is larger than ${most / 1_000_000} MB`, {
      field: 'photos',
      fix: 'Save it smaller and add it again',
    });
  if (isHeic(given)) return storePhoto(await fromHeic(given, label), name, sizes, as);
  const bytes = given;
  // Its head is read without a limit, so that a picture that is too large is told from one that is none.
  const meta = bytes.length
    ? await sharp(bytes, { limitInputPixels: false })
        .metadata()
        .catch(() => null)
    : null;
  const mime = meta?.format ? (as === 'artwork' ? readableArtwork : readable)[meta.format] : undefined;
  if (!meta || !mime || !meta.width || !meta.height) {
    const kinds = as === 'artwork' ? 'PNG, JPEG, TIFF, SVG or WebP' : 'JPEG, PNG or WebP';
    throw new NettingError('photo-unreadable', `${label} is not a ${kinds} picture that can be read`, {
      field: 'photos',
      fix: 'Save it as JPEG and add it again',
    });
  }
  if (meta.width * meta.height > mostPixels)
    throw new NettingError('photo-too-large', `${label} has more than ${mostPixels / 1_000_000} megapixels`, {
      field: 'photos',
      fix: 'Save it smaller and add it again',
    });
  if (as === 'artwork' && meta.space === 'cmyk' && !meta.hasProfile)
    throw new NettingError('photo-unreadable', `${label} is in CMYK without a colour profile`, {
      field: 'photos',
      fix: 'What its colours are cannot be known: export it with its profile, or in sRGB',
    });
  const turned = (meta.orientation ?? 1) >= 5;
  const hash = createHash('sha256').update(bytes).digest('hex');
  try {
    if (!(await photoStore.has(hash))) {
      if (sizes === 'now') await makeDerivatives(hash, bytes);
      await photoStore.write(hash, bytes);
    }
  } catch (error) {
    await removeDerivatives(hash).catch(() => undefined);
    // What the system says of a disk on which nothing can be written any more.
    if (['ENOSPC', 'EDQUOT', 'EROFS'].includes(String((error as { code?: unknown }).code)))
      throw new NettingError('not-ready', 'There is no room left for photos on the disk', {
        field: 'photos',
        fix: 'Make room, and go on',
      });
    throw new NettingError('photo-unreadable', `${label} is damaged and cannot be read to its end`, {
      field: 'photos',
      fix: 'Copy it from the camera again',
    });
  }
  return {
    hash,
    mime,
    width: turned ? meta.height : meta.width,
    height: turned ? meta.width : meta.height,
    bytes: bytes.length,
  };
}
