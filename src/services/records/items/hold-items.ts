import { asc, inArray } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { item, type ListingRow, listing } from '../../../db/schema';
import { loadItems } from './load-items';

/** Items with their listings, held by the transaction until its end. */
export type Held = { items: Item[]; listings: ListingRow[] };

/**
 * Holds items by number and then their listings, item by item: the one order in which the house locks. Unknown items are
 * left out.
 */
export async function holdItems(db: Executor, ids: readonly number[]): Promise<Held> {
  const ordered = [...new Set(ids)].sort((a, b) => a - b);
  if (ordered.length === 0) return { items: [], listings: [] };
  await db.select({ id: item.id }).from(item).where(inArray(item.id, ordered)).orderBy(asc(item.id)).for('update');
  const listings = await db
    .select()
    // By this index, whatever the server guesses: a walk along another one would hold rows of items that are not meant.
    .from(listing, { forceIndex: 'listing_knot' })
    .where(inArray(listing.itemId, ordered))
    .for('update');
  return { items: await loadItems(db, ordered), listings };
}
