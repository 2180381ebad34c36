import { and, inArray, sql } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import type { Tx } from '../../../db/client';
import type { ListingRow } from '../../../db/schema';
import { listing } from '../../../db/schema';
import type { LoadedAccount } from '../../records/accounts/load-accounts';
import { computeRow, derivedColumns } from '../../records/listings/compute-row';
import { forgetRemoteIds } from '../../records/listings/forget-remote-ids';
import { storeDerived } from '../../records/listings/refresh-listings';
import type { PlannedKnot } from './plan-portions';

export async function wantLive(
  tx: Tx,
  knots: PlannedKnot[],
  items: Item[],
  rows: Map<string, ListingRow>,
  accounts: LoadedAccount[],
): Promise<number[]> {
  const known = knots.flatMap((knot) => rows.get(`${knot.itemId}/${knot.accountId}`)?.id ?? []);
  if (known.length) await forgetRemoteIds(tx, sql`l.id in ${known}`);
  await tx
    .insert(listing)
    .values(
      knots.map(({ itemId, accountId }) => ({
        itemId,
        accountId,
        overrides: {},
        wanted: 'live' as const,
        chosen: true,
      })),
    )
    .onDuplicateKeyUpdate({
      set: { wanted: 'live', chosen: true },
    });
  return derive(tx, knots, items, rows, accounts);
}

/** What follows for listings that were not there before: wanted price and quantity. */
export async function derive(
  tx: Tx,
  knots: PlannedKnot[],
  items: Item[],
  before: Map<string, ListingRow>,
  accounts: LoadedAccount[],
): Promise<number[]> {
  const chosen = new Set(knots.map((knot) => `${knot.itemId}/${knot.accountId}`));
  const rows = await tx
    .select()
    .from(listing)
    .where(
      and(
        inArray(
          listing.itemId,
          items.map((one) => one.id),
        ),
        inArray(
          listing.accountId,
          accounts.map((one) => one.id),
        ),
      ),
    );
  const concerned = rows.filter((row) => chosen.has(`${row.itemId}/${row.accountId}`));
  const itemOf = new Map(items.map((one) => [one.id, one]));
  const derived = concerned.flatMap((row) => {
    const item = itemOf.get(row.itemId);
    const account = accounts.find((one) => one.id === row.accountId);
    if (!item || !account || before.get(`${row.itemId}/${row.accountId}`)?.wantedPrice != null) return [];
    return [{ id: row.id, set: derivedColumns(row, computeRow(item, row, account), account) }];
  });
  await storeDerived(tx, derived);
  return concerned.map((row) => row.id);
}
