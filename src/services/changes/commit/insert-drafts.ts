import { and, inArray } from 'drizzle-orm';
import type { Overrides } from '../../../core/listing';
import type { Executor } from '../../../db/client';
import { type ListingRow, listing } from '../../../db/schema';

/** Makes drafts of items on accounts where they were not yet, and returns them as they are stored. */
export async function insertDrafts(
  db: Executor,
  drafts: readonly { itemId: number; accountId: number; overrides: Overrides }[],
): Promise<ListingRow[]> {
  if (drafts.length === 0) return [];
  await db.insert(listing).values(drafts.map((one) => ({ ...one, wanted: 'draft' as const })));
  const rows = await db
    .select()
    .from(listing)
    .where(
      and(
        inArray(listing.itemId, [...new Set(drafts.map((one) => one.itemId))]),
        inArray(listing.accountId, [...new Set(drafts.map((one) => one.accountId))]),
      ),
    );
  const made = new Set(drafts.map((one) => `${one.itemId}/${one.accountId}`));
  return rows.filter((row) => made.has(`${row.itemId}/${row.accountId}`));
}
