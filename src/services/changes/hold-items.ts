import { asc, inArray } from 'drizzle-orm';
import type { Item } from '../../core/item';
import type { Executor } from '../../db/client';
import { item, type ListingRow, listing } from '../../db/schema';
import { loadItems } from '../records/load-items';

/** Items with their listings, held by the transaction until its end. */
export type Held = { items: Item[]; listings: ListingRow[] };

/** Holds items and then their listings, each by number: the one order in which the house locks. Unknown items are left out. */
export async function holdItems(db: Executor, ids: readonly number[]): Promise<Held> {
  const ordered = [...new Set(ids)].sort((a, b) => a - b);
  if (ordered.length === 0) return { items: [], listings: [] };
  await db.select({ id: item.id }).from(item).where(inArray(item.id, ordered)).orderBy(asc(item.id)).for('update');
  const listings = await db
    .select()
    .from(listing)
    .where(inArray(listing.itemId, ordered))
    .orderBy(asc(listing.id))
    .for('update');
  return { items: await loadItems(db, ordered), listings };
}
