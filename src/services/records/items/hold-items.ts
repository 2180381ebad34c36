import { asc, inArray } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { item, type ListingRow, listing } from '../../../db/schema';
import { type Family, familyOf } from './family';
import { loadItems } from './load-items';

/** Items with their listings, held by the transaction until its end. */
export type Held = { items: Item[]; listings: ListingRow[] };
/** Relatives besides: whole sets and parts that are one stock with them, held in the same breath. */
export type HeldFamily = Held & { relations: Family['relations'] };
export type HeldWhole = Held & { family: HeldFamily | null };

/**
 * Holds items by number and then their listings, item by item: the one order in which the house locks. Unknown items are
 * left out.
 */
export async function holdItems(db: Executor, ids: readonly number[]): Promise<HeldWhole> {
  const asked = [...new Set(ids)];
  const family = await familyOf(db, asked);
  const ordered = [...new Set([...asked, ...(family?.ids ?? [])])].sort((a, b) => a - b);
  if (ordered.length === 0) return { items: [], listings: [], family: null };
  await db.select({ id: item.id }).from(item).where(inArray(item.id, ordered)).orderBy(asc(item.id)).for('update');
  const listings = await db
    .select()
    // By this index, whatever the server guesses: a walk along another one would hold rows of items that are not meant.
    .from(listing, { forceIndex: 'listing_knot' })
    .where(inArray(listing.itemId, ordered))
    .for('update');
  const items = await loadItems(db, ordered);
  if (!family) return { items, listings, family };
  const wanted = new Set(asked);
  const isAsked = (id: number) => wanted.has(id);
  // Read anew now that they are held: what a set is made of may have become another while this waited.
  const { relations } = (await familyOf(db, asked)) ?? { relations: [] };
  return {
    items: items.filter((one) => isAsked(one.id)),
    listings: listings.filter((row) => isAsked(row.itemId)),
    family: { items, listings, relations },
  };
}
