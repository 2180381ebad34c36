import { and, eq, gt, inArray } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import type { ComputedListing, Issue } from '../../../core/listing';
import { liveStates } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import type { ListingRow } from '../../../db/schema';
import { listing } from '../../../db/schema';
import type { LoadedAccount } from '../../records/accounts/load-accounts';
import { loadItems } from '../../records/items/load-items';
import { computeRow } from '../../records/listings/compute-row';

export type ViolationRow = { row: ListingRow; item: Item; issues: Issue[]; computed: ComputedListing };

/**
 * Every listing of an account that does not fit, computed now, in portions.
 * @param which all of them, those that are live and well, or those of which sending failed
 */
export async function* violationRows(
  db: Executor,
  account: LoadedAccount,
  which: 'all' | 'live' | 'failed' = 'all',
  portion = 300,
): AsyncGenerator<ViolationRow[]> {
  for (let after = 0; ; ) {
    const rows = await db
      .select()
      .from(listing)
      .where(
        and(
          eq(listing.accountId, account.id),
          gt(listing.blocking, 0),
          inArray(listing.wanted, ['draft', 'live']),
          which === 'live' ? inArray(listing.state, liveStates) : undefined,
          which === 'failed' ? eq(listing.state, 'attention') : undefined,
          gt(listing.id, after),
        ),
      )
      .orderBy(listing.id)
      .limit(portion);
    const last = rows.at(-1);
    if (!last) return;
    const items = new Map(
      (await loadItems(db, [...new Set(rows.map((row) => row.itemId))])).map((one) => [one.id, one]),
    );
    yield rows.flatMap((row): ViolationRow[] => {
      const item = items.get(row.itemId);
      if (!item) return [];
      const computed = computeRow(item, row, account);
      const issues = computed.issues.filter((issue) => issue.blocks && issue.code !== 'quantity-none');
      return issues.length ? [{ row, item, issues, computed }] : [];
    });
    after = last.id;
  }
}

export const violationKey = (issue: Pick<Issue, 'code' | 'field' | 'message'>): string =>
  `${issue.code}/${issue.field}/${issue.message}`;
