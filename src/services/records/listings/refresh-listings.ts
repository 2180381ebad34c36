import { sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { valuesTable } from '../../../db/literal';
import { asOfNow, type LoadedAccount, loadAccounts } from '../accounts/load-accounts';
import { holdItems } from '../items/hold-items';
import { computeRow, type Derived, derivedColumns } from './compute-row';

const derivedNames = [
  'id',
  'override_price',
  'wanted_price',
  'wanted_quantity',
  'quantity_cap',
  'content_dirty',
  'blocking',
] as const;

/** Writes what follows for many listings in one statement; of those whose row is known only where it became different. */
export async function storeDerived(
  db: Executor,
  rows: { id: number; set: Derived; now?: Derived }[],
  portion = 1_000,
): Promise<void> {
  const due = rows.filter(({ set, now }) => !now || keys.some((key) => set[key] !== now[key]));
  for (let at = 0; at < due.length; at += portion) {
    const values = due.slice(at, at + portion).map(({ id, set }) => [id, ...keys.map((key) => set[key])]);
    const columns = derivedNames.slice(1).map((name) => sql.raw(`l.${name} = v.${name}`));
    await db.execute(
      sql`update listing l join (${valuesTable(derivedNames, values)}) v on v.id = l.id set ${sql.join(columns, sql`, `)}`,
    );
  }
}

// in the order of the names above
const keys = [
  'overridePrice',
  'wantedPrice',
  'wantedQuantity',
  'quantityCap',
  'contentDirty',
  'blocking',
] as const satisfies (keyof Derived)[];

/**
 * Computes the listings of these items anew and stores what follows: what differs, what blocks. In the caller's
 * transaction, with items and listings held: nothing is computed from what somebody else is just changing.
 */
export async function refreshListings(db: Executor, itemIds: number[], accounts?: LoadedAccount[]): Promise<void> {
  if (itemIds.length === 0) return;
  const held = await holdItems(db, itemIds);
  // With the items held: who makes rules or settings others computes them after us, or has done so before.
  const known = accounts ? await asOfNow(db, accounts) : await loadAccounts(db);
  const byAccount = new Map(known.map((one) => [one.id, one]));
  const items = new Map(held.items.map((one) => [one.id, one]));
  const derived = held.listings.flatMap((row) => {
    const account = byAccount.get(row.accountId);
    const item = items.get(row.itemId);
    return account && item
      ? [{ id: row.id, set: derivedColumns(row, computeRow(item, row, account), account), now: row }]
      : [];
  });
  await storeDerived(db, derived);
}
