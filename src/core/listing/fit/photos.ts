import type { Photo } from '../../item/item';
import type { Json } from '../../json';
import { photoReference, readPhotoReference } from '../../photo/reference';
import type { MarketRules } from '../../rules/rules';

/** The pictures that an account's own choice comes to: the item's photos, and what was made of those that are there. */
export function chosenPhotos(choice: readonly Json[], photos: readonly Photo[]): Photo[] {
  return choice.flatMap((one): Photo[] => {
    const { hash, made } = readPhotoReference(String(one));
    // What stands for itself is there for this account alone.
    const own = photos.find((photo) => photo.hash === (made?.of ?? hash));
    if (made && (own || made.of === hash)) return [{ hash, width: made.width, height: made.height }];
    return own ? [own] : [];
  });
}

type PhotoRules = MarketRules['photos'];
type Sides = Pick<Photo, 'width' | 'height'>;

/** The width by height that a photo has to be filled up to; null when it may stay as it is. */
export function neededRatio(photo: Sides, rules: PhotoRules): number | null {
  if (!rules.shape) return null;
  const ratio = photo.width / photo.height;
  if (ratio < rules.shape.narrow) return rules.shape.narrow;
  return ratio > rules.shape.wide ? rules.shape.wide : null;
}

/** Sides of a photo once it is filled up (never cut) to the needed shape. */
export function filledSides(photo: Sides, rules: PhotoRules): { width: number; height: number } {
  const ratio = neededRatio(photo, rules);
  if (ratio === null) return photo;
  return photo.width / photo.height < ratio
    ? { width: Math.round(photo.height * ratio), height: photo.height }
    : { width: photo.width, height: Math.round(photo.width / ratio) };
}

/** A photo that stays too small there even when it is filled up. */
export function isTooSmall(photo: Sides, rules: PhotoRules): boolean {
  const { width, height } = filledSides(photo, rules);
  return Math.max(width, height) < rules.minLongestSide || Math.min(width, height) < (rules.minShortestSide ?? 0);
}

/** The listing's photos: references with the shapes they need. */
export const photoReferences = (photos: readonly Photo[], rules: PhotoRules): string[] =>
  photos.map((photo) => photoReference(photo.hash, neededRatio(photo, rules)));
