import type { Change } from '../../core/change';
import type { Item } from '../../core/item';
import { keptChoice, takenPlaces } from '../../core/photo/kept-places';
import type { ListingRow } from '../../db/schema';

/** The photos in another order, or others; one that was worked on keeps its place in what accounts chose of them, too. */
export function photoChanges(item: Item, listings: readonly ListingRow[], photos: readonly string[]): Change[] {
  const taken = takenPlaces(
    item.photos.map((photo) => photo.hash),
    photos,
  );
  const own = listings.flatMap(({ accountId, overrides }): Change[] => {
    const chosen = overrides.photos;
    const kept = Array.isArray(chosen) ? keptChoice(chosen.map(String), taken) : null;
    return kept ? [{ target: { item: item.id, account: accountId }, field: 'photos', to: kept }] : [];
  });
  return [{ target: { item: item.id }, field: 'photos', to: [...photos] }, ...own];
}
