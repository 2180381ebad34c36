import { and, inArray, sql } from 'drizzle-orm';
import type { Item } from '../core/item';
import { type ComputedListing, type Content, computeListing, type ListingInput } from '../core/listing';
import { difference } from '../core/sync';
import type { Executor } from '../db/client';
import { listing } from '../db/schema';
import { type LoadedAccount, loadAccounts } from './account-context';
import { loadItems } from './load-items';

export type ListingRow = typeof listing.$inferSelect;

const numberOr = (value: unknown, fallback: number | null) => (typeof value === 'number' ? value : fallback);
const isThere = (row: Pick<ListingRow, 'remote'>) => row.remote === 'live' || row.remote === 'review';

/** What a listing is computed from: the item, what is written for this marketplace, and what it is called there. */
export function inputOf(
  item: Item,
  row: Pick<ListingRow, 'differences' | 'remote' | 'sent' | 'timesMade'> | undefined,
  account: LoadedAccount,
): ListingInput {
  const numberThere = row && isThere(row) && typeof row.sent?.sku === 'string' ? row.sent.sku : null;
  return { item, differences: row?.differences ?? {}, account, numberThere, timesMade: row?.timesMade ?? 0 };
}

export const computeRow = (item: Item, row: Parameters<typeof inputOf>[1], account: LoadedAccount): ComputedListing =>
  computeListing(inputOf(item, row, account));

/** The columns of a listing row that follow from its computed content. */
export function derivedColumns(
  row: Pick<ListingRow, 'remote' | 'sent' | 'differences'>,
  computed: ComputedListing,
  account: LoadedAccount,
) {
  const { content } = computed;
  const apart = (one: Content): Content => {
    const { price: _price, quantity: _quantity, ...rest } = one;
    return rest;
  };
  const cap = Math.min(account.compiled.rules.quantity.max, account.stock?.cap ?? 1_000_000);
  return {
    ownPrice: numberOr(row.differences.price, null),
    wantedPrice: numberOr(content.price, null),
    wantedQuantity: numberOr(content.quantity, 0) ?? 0,
    quantityCap: Math.min(cap, numberOr(row.differences.quantity, cap) ?? cap),
    contentDirty: isThere(row) && row.sent !== null && difference(apart(row.sent), apart(content)).length > 0,
    // An item that is sold out is no fault of the record: such a listing ends, nothing has to be mended.
    blocking: computed.issues.filter((issue) => issue.blocks && issue.code !== 'quantity-none').length,
  };
}

type Derived = ReturnType<typeof derivedColumns>;

/** Writes what follows for many listings in one statement. */
export async function storeDerived(db: Executor, rows: { id: number; set: Derived }[], portion = 500): Promise<void> {
  for (let at = 0; at < rows.length; at += portion) {
    const some = rows.slice(at, at + portion);
    const values = some.map(
      ({ id, set }) =>
        sql`select ${id} as id, ${set.ownPrice} as own_price, ${set.wantedPrice} as wanted_price, ${set.wantedQuantity} as wanted_quantity, ${set.quantityCap} as quantity_cap, ${set.contentDirty} as content_dirty, ${set.blocking} as blocking`,
    );
    await db.execute(
      sql`update listing l join (${sql.join(values, sql` union all `)}) v on v.id = l.id set l.own_price = v.own_price, l.wanted_price = v.wanted_price, l.wanted_quantity = v.wanted_quantity, l.quantity_cap = v.quantity_cap, l.content_dirty = v.content_dirty, l.blocking = v.blocking`,
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
