import { and, inArray, sql } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import { listing } from '../../db/schema';
import { computeRow, type Derived, derivedColumns } from './compute-row';
import { type LoadedAccount, loadAccounts } from './load-accounts';
import { loadItems } from './load-items';

/** Writes what follows for many listings in one statement. */
export async function storeDerived(db: Executor, rows: { id: number; set: Derived }[], portion = 500): Promise<void> {
  for (let at = 0; at < rows.length; at += portion) {
    const some = rows.slice(at, at + portion);
    const values = some.map(
      ({ id, set }) =>
        sql`select ${id} as id, ${set.overridePrice} as override_price, ${set.wantedPrice} as wanted_price, ${set.wantedQuantity} as wanted_quantity, ${set.quantityCap} as quantity_cap, ${set.contentDirty} as content_dirty, ${set.blocking} as blocking`,
    );
    await db.execute(
      sql`update listing l join (${sql.join(values, sql` union all `)}) v on v.id = l.id set l.override_price = v.override_price, l.wanted_price = v.wanted_price, l.wanted_quantity = v.wanted_quantity, l.quantity_cap = v.quantity_cap, l.content_dirty = v.content_dirty, l.blocking = v.blocking`,
    );
  }
}

/** Computes the listings of these items anew and stores what follows: what differs, what blocks. In the caller's transaction. */
export async function refreshListings(db: Executor, itemIds: number[], accounts?: LoadedAccount[]): Promise<void> {
  if (itemIds.length === 0) return;
  const known = accounts ?? (await loadAccounts(db));
  const byAccount = new Map(known.map((one) => [one.id, one]));
  const items = new Map((await loadItems(db, itemIds)).map((one) => [one.id, one]));
  const rows = await db
    .select()
    .from(listing)
    .where(
      and(
        inArray(listing.itemId, itemIds),
        accounts &&
          inArray(
            listing.accountId,
            accounts.map((one) => one.id),
          ),
      ),
    );
  const derived = rows.flatMap((row) => {
    const account = byAccount.get(row.accountId);
    const item = items.get(row.itemId);
    return account && item ? [{ id: row.id, set: derivedColumns(row, computeRow(item, row, account), account) }] : [];
  });
  await storeDerived(db, derived);
}
