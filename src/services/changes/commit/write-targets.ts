import { inArray } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { type ListingRow, listing } from '../../../db/schema';

/** What a person said of an item and an account. */
export type Said = { itemId: number; accountId: number; isMeant: boolean };

/**
 * Keeps what was said of whether items are meant for accounts: one that is left out has no listing to be, one that is
 * taken in has a draft. What was written for it stays. Returns the rows as they are now, in their order.
 */
export async function writeTargets(
  db: Executor,
  rows: readonly ListingRow[],
  said: readonly Said[],
): Promise<ListingRow[]> {
  if (said.length === 0) return [...rows];
  const wanted = new Map(said.map((one) => [`${one.itemId}/${one.accountId}`, one.isMeant]));
  const turned = rows.map((row): ListingRow => {
    const isMeant = wanted.get(`${row.itemId}/${row.accountId}`);
    if (isMeant === undefined) return row;
    return isMeant
      ? { ...row, wanted: row.wanted === 'none' ? 'draft' : row.wanted, chosen: true }
      : { ...row, wanted: 'none', chosen: true, problem: false };
  });
  for (const value of ['none', 'draft'] as const) {
    const ids = turned.filter((row, at) => row.wanted === value && row !== rows[at]).map((row) => row.id);
    if (ids.length === 0) continue;
    await db
      .update(listing)
      .set({ wanted: value, chosen: true, ...(value === 'none' ? { problem: false } : {}) })
      .where(inArray(listing.id, ids));
  }
  return turned;
}
