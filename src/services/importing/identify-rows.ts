import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import { type Column, readKey } from '../../core/table';
import type { Executor } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { item, listing } from '../../db/schema';
import type { FileRow } from '../../files';

/** Which item a row is of, and which of its combinations; or why that cannot be said. */
export type Identity = { item: number | null; key: string | null } | { why: string };

const cell = (row: FileRow, columns: readonly (Column | null)[], id: string): string => {
  const at = columns.findIndex((one) => one?.id === id);
  return at < 0 ? '' : (row.cells[at] ?? '').trim();
};

/** Stock numbers are the same in small letters and capitals, as the database has it. */
const plain = (sku: string): string => sku.toLowerCase();

/** Numbers that name more than one item name none. */
function unique(pairs: readonly (readonly [string, number])[]): Map<string, number | 'several'> {
  const map = new Map<string, number | 'several'>();
  for (const [name, id] of pairs) map.set(name, map.has(name) && map.get(name) !== id ? 'several' : id);
  return map;
}

/** Stock numbers of combinations: few items have any, and no index holds them. */
async function combinationNumbers(db: Executor, skus: readonly string[]): Promise<Map<string, [number, string]>> {
  if (skus.length === 0) return new Map();
  const rows = rowsOf<{ id: number; sku: string; key: string }>(
    await db.execute(sql`
      select i.id, v.sku, v.k as \`key\` from item i,
        json_table(i.variations, '$[*]' columns (sku varchar(40) path '$.sku', k varchar(16) path '$.key')) v
      where i.axes <> '[]' and v.sku in ${[...skus]}`),
  );
  return new Map(rows.map((row) => [plain(row.sku), [row.id, row.key]]));
}

/**
 * Ties rows to items by the first of these columns that says something: the item's number, the stock number (of an item or
 * of a combination), the barcode, a marketplace's number.
 */
export async function identifyRows(
  db: Executor,
  rows: readonly FileRow[],
  columns: readonly (Column | null)[],
): Promise<Identity[]> {
  const said = (id: string) => [...new Set(rows.map((row) => cell(row, columns, id)).filter(Boolean))];
  const skus = said('sku');
  const bySku = unique(
    skus.length
      ? (await db.select({ id: item.id, sku: item.sku }).from(item).where(inArray(item.sku, skus))).map(
          (one) => [plain(one.sku), one.id] as const,
        )
      : [],
  );
  const ofCombination = await combinationNumbers(
    db,
    skus.filter((sku) => !bySku.has(plain(sku))),
  );
  const barcodes = said('barcode');
  const byBarcode = unique(
    barcodes.length
      ? (await db.select({ id: item.id, barcode: item.barcode }).from(item).where(inArray(item.barcode, barcodes))).map(
          (one) => [one.barcode, one.id] as const,
        )
      : [],
  );
  const remotes = columns.flatMap((one) => (one?.place.of === 'remote' && one.place.what === 'number' ? [one] : []));
  const byRemote = new Map<string, Map<string, number | 'several'>>();
  for (const column of remotes) {
    const numbers = said(column.id);
    if (numbers.length === 0 || !('account' in column.place)) continue;
    const found = await db
      .select({ id: listing.itemId, number: listing.remoteId })
      .from(listing)
      .where(
        and(
          eq(listing.accountId, column.place.account),
          isNotNull(listing.remoteId),
          inArray(listing.remoteId, numbers),
        ),
      );
    byRemote.set(column.id, unique(found.map((one) => [one.number ?? '', one.id] as const)));
  }
  return rows.map((row): Identity => {
    const key = readKey(cell(row, columns, 'row.key')) || null;
    const number = cell(row, columns, 'row.item');
    if (number !== '')
      return /^\d{1,12}(\.0)?$/.test(number)
        ? { item: Math.trunc(Number(number)), key }
        : { why: `“${number.slice(0, 40)}” is no item's number` };
    const sku = cell(row, columns, 'sku');
    const part = ofCombination.get(plain(sku));
    if (part) return { item: part[0], key: part[1] };
    const names: [string, number | 'several' | undefined][] = [
      [sku, bySku.get(plain(sku))],
      [cell(row, columns, 'barcode'), byBarcode.get(cell(row, columns, 'barcode'))],
      ...remotes.map((one): [string, number | 'several' | undefined] => [
        cell(row, columns, one.id),
        byRemote.get(one.id)?.get(cell(row, columns, one.id)),
      ]),
    ];
    for (const [name, found] of names) {
      if (found === 'several') return { why: `Several items have ${name}` };
      if (found !== undefined) return { item: found, key };
    }
    return { item: null, key: null };
  });
}
