import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { NettingError } from '../core/errors';
import { makeDerivatives, removeDerivatives } from './derivatives';
import { mostPixels } from './limits';
import { photoStore } from './store';

export const maxPhotoBytes = 30_000_000;
const readable: Record<string, string> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

/** Phones' pictures in a format that only their makers' own programs decode: `ftyp` and its brand at the beginning. */
const isHeic = (bytes: Buffer): boolean =>
  /^ftyp(heic|heix|heim|heis|hevc|hevx|mif1|msf1)/.test(bytes.subarray(4, 12).toString('latin1'));

export type StoredPhoto = { hash: string; mime: string; width: number; height: number; bytes: number };

/**
 * Checks and stores an uploaded photo by what it is, not by what its name says. Size as seen upright (EXIF rotation).
 * @param sizes whether its other sizes are made now, or when they are first looked at; who puts that off has to have read
 * the picture to its end
 */
export async function storePhoto(bytes: Buffer, name: string, sizes: 'now' | 'later' = 'now'): Promise<StoredPhoto> {
  const label = name.slice(0, 80) || 'The file';
  if (bytes.length > maxPhotoBytes)
    throw new NettingError('photo-too-large', `${label} is larger than 30 MB`, {
      field: 'photos',
      fix: 'Save it smaller and add it again',
    });
  if (isHeic(bytes))
    throw new NettingError('photo-unreadable', `${label} is a HEIC picture, which cannot be read here`, {
      field: 'photos',
      fix: 'Set the phone’s camera to its most compatible format (JPEG), or save the picture as JPEG, and add it again',
    });
  const meta = bytes.length
    ? await sharp(bytes, { limitInputPixels: mostPixels })
        .metadata()
        .catch(() => null)
    : null;
  const mime = meta?.format ? readable[meta.format] : undefined;
  if (!meta || !mime || !meta.width || !meta.height) {
    throw new NettingError('photo-unreadable', `${label} is not a JPEG, PNG or WebP picture that can be read`, {
      field: 'photos',
      fix: 'Save it as JPEG and add it again',
    });
  }
  const turned = (meta.orientation ?? 1) >= 5;
  const hash = createHash('sha256').update(bytes).digest('hex');
  try {
    if (!(await photoStore.has(hash))) {
      if (sizes === 'now') await makeDerivatives(hash, bytes);
      await photoStore.write(hash, bytes);
    }
  } catch {
    await removeDerivatives(hash);
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
