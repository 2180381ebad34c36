import type { Change } from '../../core/change';
import type { Item } from '../../core/item';
import { keptChoice, type Remade, takenPlaces } from '../../core/photo/kept-places';
import type { ListingRow } from '../../db/schema';

type How = {
  /** Which photo took whose place; found by their places when left out. */
  taken?: ReadonlyMap<string, string>;
  remade?: Remade;
};

/** The photos in another order, or others; one that was worked on keeps its place in what accounts chose of them, too. */
export function photoChanges(
  item: Item,
  listings: readonly ListingRow[],
  photos: readonly string[],
  how: How = {},
): Change[] {
  const before = item.photos.map((photo) => photo.hash);
  const all = how.taken ?? takenPlaces(before, photos);
  // One that still stands there, too, is still chosen.
  const taken = new Map([...all].filter(([old]) => !photos.includes(old)));
  const own = listings.flatMap(({ accountId, overrides }): Change[] => {
    const chosen = overrides.photos;
    const kept = Array.isArray(chosen) ? keptChoice(chosen, taken, how.remade) : null;
    return kept ? [{ target: { item: item.id, account: accountId }, field: 'photos', to: kept }] : [];
  });
  return [{ target: { item: item.id }, field: 'photos', to: [...photos] }, ...own];
}
