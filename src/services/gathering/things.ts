import { and, asc, inArray, isNotNull } from 'drizzle-orm';
import type { PhotoPrint, Thing } from '../../core/match';
import type { Executor } from '../../db/client';
import { type FoundRow, itemPhoto, listing } from '../../db/schema';
import type { CandidateItem } from '../listings/links/candidate-items';
import { thingOfItem, thingOfListing } from '../listings/links/match-things';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { printsLookedAt } from '../records/photos/photo-prints';
import { keyOfFound, keyOfItem, placeOfAccount } from './thing-keys';

/** So many of a thing's photos are compared. */
const mostPhotos = 4;
const atOnce = 500;

const printed = (hashes: readonly (string | null)[], prints: ReadonlyMap<string, PhotoPrint>): PhotoPrint[] =>
  hashes.flatMap((hash) => {
    const print = hash === null ? undefined : prints.get(hash);
    return print ? [print] : [];
  });

/** What is known of a listing that was found. */
export function thingOfFound(row: FoundRow, account: LoadedAccount, prints: ReadonlyMap<string, PhotoPrint>): Thing {
  return {
    ...thingOfListing(keyOfFound(row), placeOfAccount(row.accountId), { ...row, called: row.facts.called }, account),
    title: row.title,
    photos: printed((row.hashes ?? []).slice(0, mostPhotos), prints),
  };
}

/** What is known of items of ours that may be one of them, with the accounts where each is live already. */
export async function thingsOfItems(
  db: Executor,
  items: readonly CandidateItem[],
  alive: () => Promise<void>,
): Promise<Thing[]> {
  const ids = items.map((one) => one.id);
  if (ids.length === 0) return [];
  const photos = new Map<number, string[]>();
  const live = new Map<number, string[]>();
  for (let at = 0; at < ids.length; at += atOnce) {
    const some = ids.slice(at, at + atOnce);
    const rows = await db
      .select({ itemId: itemPhoto.itemId, hash: itemPhoto.hash })
      .from(itemPhoto)
      .where(inArray(itemPhoto.itemId, some))
      .orderBy(asc(itemPhoto.itemId), asc(itemPhoto.position));
    for (const { itemId, hash } of rows) {
      const there = photos.get(itemId) ?? [];
      if (there.length < mostPhotos) photos.set(itemId, [...there, hash]);
    }
    const links = await db
      .select({ itemId: listing.itemId, accountId: listing.accountId })
      .from(listing)
      .where(
        and(
          inArray(listing.itemId, some),
          isNotNull(listing.remoteId),
          inArray(listing.remote, ['live', 'review', 'maybe']),
        ),
      );
    for (const { itemId, accountId } of links)
      live.set(itemId, [...(live.get(itemId) ?? []), placeOfAccount(accountId)]);
  }
  const prints = await printsLookedAt(db, [...photos.values()].flat(), alive);
  return items.map((item) => ({
    ...thingOfItem(keyOfItem(item.id), item),
    taken: live.get(item.id) ?? [],
    photos: printed(photos.get(item.id) ?? [], prints),
  }));
}
