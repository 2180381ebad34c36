import { asc, eq, inArray, sql } from 'drizzle-orm';
import { fieldsFor } from '../../core/field';
import { amountToText, homeCurrency } from '../../core/measure';
import { type KnotState, knotLabels } from '../../core/sync';
import type { Executor } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { changeRecord, item, listing } from '../../db/schema';
import { recordedField } from '../changes/preview/present-value';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { eachSale, saleCells, salesColumns } from '../stock/export-sales';

export const exportKinds = ['items', 'listings', 'history', 'sales'] as const;
export type ExportKind = (typeof exportKinds)[number];
export type ExportColumn = { id: string; label: string; isNumber?: boolean };
export type ExportRow = { itemId: number; cells: string[] };

const named = (pairs: readonly [string, string, 'number'?][]): ExportColumn[] =>
  pairs.map(([id, label, number]) => (number ? { id, label, isNumber: true } : { id, label }));

/** Columns of what is written out to look at: it is not read back. */
export const otherColumns: Record<Exclude<ExportKind, 'items'>, ExportColumn[]> = {
  listings: named([
    ['sku', 'Stock number'],
    ['account', 'Account'],
    ['state', 'State'],
    ['number', 'Listing number'],
    ['title', 'Title there'],
    ['price', 'Price', 'number'],
    ['currency', 'Currency'],
    ['quantity', 'Quantity', 'number'],
    ['since', 'Live since'],
    ['renews', 'Renews on'],
    ['link', 'Link'],
  ]),
  history: named([
    ['at', 'When'],
    ['by', 'Who'],
    ['why', 'How'],
    ['sku', 'Stock number'],
    ['account', 'Account'],
    ['field', 'Field'],
    ['from', 'From'],
    ['to', 'To'],
  ]),
  sales: salesColumns.map(({ id, label, field }) => (field ? { id, label, isNumber: true } : { id, label })),
};

type ListingLine = {
  itemId: number;
  sku: string;
  accountId: number;
  state: KnotState;
  number: string | null;
  title: string | null;
  price: number | null;
  quantity: number | null;
  since: string | null;
  renews: string | null;
  link: string | null;
};

/** One row for each listing of these items. */
async function listingRows(db: Executor, ids: readonly number[]): Promise<ExportRow[]> {
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  const rows = rowsOf<ListingLine>(
    await db.execute(sql`
      select l.item_id as itemId, i.sku, l.account_id as accountId, l.state, l.remote_id as number, json_value(l.sent, '$.title') as title,
        coalesce(l.sent_price, l.wanted_price) as price, coalesce(l.sent_quantity, l.wanted_quantity) as quantity,
        date_format(l.live_since, '%Y-%m-%dT%H:%i:%sZ') as since, date_format(l.renews_at, '%Y-%m-%dT%H:%i:%sZ') as renews, l.remote_url as link
      from listing l join item i on i.id = l.item_id where l.item_id in ${[...ids]} and l.state <> 'none' order by l.item_id, l.account_id`),
  );
  return rows.map((row) => {
    const account = accounts.get(row.accountId);
    const currency = account?.compiled.rules.currency ?? homeCurrency;
    return {
      itemId: row.itemId,
      cells: [
        row.sku,
        account?.name ?? '',
        knotLabels[row.state],
        row.number ?? '',
        row.title ?? '',
        row.price === null ? '' : amountToText(row.price, currency),
        currency,
        String(row.quantity ?? ''),
        row.since ?? '',
        row.renews ?? '',
        row.link ?? '',
      ],
    };
  });
}

/** One row for each change of these items, the oldest first. */
async function historyRows(db: Executor, ids: readonly number[]): Promise<ExportRow[]> {
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  const catalogue = fieldsFor(await loadCustomFields(db));
  const rows = await db
    .select({ change: changeRecord, sku: item.sku, accountId: listing.accountId })
    .from(changeRecord)
    .innerJoin(item, eq(item.id, changeRecord.itemId))
    .leftJoin(listing, eq(listing.id, changeRecord.listingId))
    .where(inArray(changeRecord.itemId, [...ids]))
    .orderBy(asc(changeRecord.itemId), asc(changeRecord.id));
  return rows.map(({ change, sku, accountId }) => {
    const account = accountId === null ? undefined : accounts.get(accountId);
    const field = recordedField({ ...change, accountId }, catalogue);
    const currency = account?.compiled.rules.currency ?? homeCurrency;
    const text = (value: unknown) =>
      field ? field.show(value as never, { currency }) : value === null ? '' : JSON.stringify(value); // written by that field
    return {
      itemId: change.itemId,
      cells: [
        change.at.toISOString(),
        change.byName,
        change.why,
        sku,
        account?.name ?? '',
        field?.label ?? change.field,
        text(change.from),
        text(change.to),
      ],
    };
  });
}

/** One row for each sale of these items, the newest first. */
async function saleRows(_db: Executor, ids: readonly number[]): Promise<ExportRow[]> {
  const rows: ExportRow[] = [];
  for await (const one of eachSale({}, ids))
    if (one.itemId !== null) rows.push({ itemId: one.itemId, cells: saleCells(one) });
  return rows;
}

const rowsOfKind = { listings: listingRows, history: historyRows, sales: saleRows };

/** Rows of these items of a kind that is not the items themselves, in the columns that were chosen. */
export async function otherRows(
  kind: Exclude<ExportKind, 'items'>,
  db: Executor,
  { ids, columns }: { ids: readonly number[]; columns: readonly { id: string }[] },
): Promise<ExportRow[]> {
  const places = columns.map((one) => otherColumns[kind].findIndex((other) => other.id === one.id));
  return (await rowsOfKind[kind](db, ids)).map(({ itemId, cells }) => ({
    itemId,
    cells: places.map((at) => cells[at] ?? ''),
  }));
}
