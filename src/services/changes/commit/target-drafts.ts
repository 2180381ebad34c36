import { inArray } from 'drizzle-orm';
import { type Filter, matches } from '../../../core/filter';
import type { Item } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { type ListingRow, listing } from '../../../db/schema';
import { today } from '../../records/accounts/today';
import { groupByItem } from '../../records/items/load-items';
import { insertDrafts } from './insert-drafts';

/** An account that wants every new item that belongs to it. */
export type Wanting = { id: number; autoDraft: boolean; belongs: Filter | null };

/** Whether an item is meant for an account, as long as no person has said otherwise. */
export const belongsTo = ({ autoDraft, belongs }: Wanting, item: Item): boolean =>
  autoDraft && item.standing === 'active' && (belongs === null || matches(belongs, { item, today: today() }));

/** No person has said that it is for this account, and nothing has been written or sent there. */
const isUndecided = (row: ListingRow): boolean =>
  !row.chosen && row.remote === 'none' && row.timesMade === 0 && Object.keys(row.overrides).length === 0;

/**
 * After items were changed: those that belong to an account by its filter now become drafts there, and drafts that do
 * not belong any more are left out again. What a person chose, wrote or sent there stays as it is. Accounts without a
 * filter are left alone.
 * @returns the rows that became different, as they are now
 */
export async function targetDrafts(
  db: Executor,
  items: readonly Item[],
  rows: readonly ListingRow[],
  accounts: readonly Wanting[],
): Promise<ListingRow[]> {
  const ruled = accounts.filter((one) => one.belongs !== null);
  if (ruled.length === 0) return [];
  const fresh: { itemId: number; accountId: number }[] = [];
  const turned: ListingRow[] = [];
  const rowsOf = groupByItem(rows);
  for (const item of items)
    for (const account of ruled) {
      const row = rowsOf.get(item.id)?.find((one) => one.accountId === account.id);
      const wanted = belongsTo(account, item) ? 'draft' : 'none';
      if (!row && wanted === 'draft') fresh.push({ itemId: item.id, accountId: account.id });
      else if (row && isUndecided(row) && (row.wanted === 'draft' || row.wanted === 'none') && row.wanted !== wanted)
        turned.push({ ...row, wanted });
    }
  for (const wanted of ['draft', 'none'] as const) {
    const ids = turned.filter((row) => row.wanted === wanted).map((row) => row.id);
    if (ids.length) await db.update(listing).set({ wanted }).where(inArray(listing.id, ids));
  }
  const made = await insertDrafts(
    db,
    fresh.map((one) => ({ ...one, overrides: {} })),
  );
  return [...turned, ...made];
}
