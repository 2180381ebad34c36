import type { Photo } from '../../item/item';
import type { MarketRules } from '../../rules/rules';

/** A photo as a listing names it: the original's hash, and the shape it has to be brought to, as in `<hash>~1x1`. */
export type PhotoReference = { hash: string; shape: [width: number, height: number] | null };

/** Shapes are written in whole numbers up to a thousand, so that equal shapes are equal words. */
const ratioWord = (ratio: number) => (ratio === 1 ? '1x1' : `${Math.round(ratio * 100)}x100`);

export const photoReference = (hash: string, ratio: number | null): string =>
  ratio === null ? hash : `${hash}~${ratioWord(ratio)}`;

export function readPhotoReference(reference: string): PhotoReference {
  const [hash = '', shape] = reference.split('~');
  const hit = /^(\d{1,4})x(\d{1,4})$/.exec(shape ?? '');
  return { hash, shape: hit ? [Number(hit[1]), Number(hit[2])] : null };
}

type PhotoRules = MarketRules['photos'];

/** The width by height that a photo has to be filled up to; null when it may stay as it is. */
export function neededRatio(photo: Photo, rules: PhotoRules): number | null {
  if (!rules.shape) return null;
  const ratio = photo.width / photo.height;
  if (ratio < rules.shape.narrow) return rules.shape.narrow;
  return ratio > rules.shape.wide ? rules.shape.wide : null;
}

/** Sides of a photo once it is filled up (never cut) to the needed shape. */
export function filledSides(photo: Photo, rules: PhotoRules): { width: number; height: number } {
  const ratio = neededRatio(photo, rules);
  if (ratio === null) return photo;
  return photo.width / photo.height < ratio
    ? { width: Math.round(photo.height * ratio), height: photo.height }
    : { width: photo.width, height: Math.round(photo.width / ratio) };
}

/** A photo that stays too small there even when it is filled up. */
export function isTooSmall(photo: Photo, rules: PhotoRules): boolean {
  const { width, height } = filledSides(photo, rules);
  return Math.max(width, height) < rules.minLongestSide || Math.min(width, height) < (rules.minShortestSide ?? 0);
}

/** The listing's photos: references with the shapes they need. */
export const photoReferences = (photos: readonly Photo[], rules: PhotoRules): string[] =>
  photos.map((photo) => photoReference(photo.hash, neededRatio(photo, rules)));
