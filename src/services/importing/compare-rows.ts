import { and, eq, inArray } from 'drizzle-orm';
import type { Item, Variation } from '../../core/item';
import { type Column, planRow, type RowOptions, type Shape, shapeOf } from '../../core/table';
import { database, type Executor } from '../../db/client';
import { fileExport, fileExportRow, type fileImportRow, type ImportCounts, listing } from '../../db/schema';
import type { FileRow } from '../../files';
import type { FileColumns } from '../records/items/file-columns';
import { groupByItem, loadItems } from '../records/items/load-items';
import { accountsIn, tableRecord } from '../records/items/table-record';
import { type Identity, identifyRows } from './identify-rows';

type KeptRow = Omit<typeof fileImportRow.$inferInsert, 'importId'>;
export type Compared = { kept: KeptRow[]; counts: ImportCounts };

export type Comparison = {
  columns: readonly (Column | null)[];
  there: FileColumns;
  exportId: number | null;
  options: RowOptions & { createNew: boolean };
  /** Of which items and combinations rows were met before, in which line. */
  met: Map<string, number>;
};

/** What was written out of these items, by item and combination, cell by cell. */
async function exportedCells(db: Executor, exportId: number | null, ids: readonly number[]) {
  const cells = new Map<string, Record<string, string>>();
  if (exportId === null || ids.length === 0) return cells;
  const [made] = await db.select({ columns: fileExport.columns }).from(fileExport).where(eq(fileExport.id, exportId));
  const rows = await db
    .select()
    .from(fileExportRow)
    .where(and(eq(fileExportRow.exportId, exportId), inArray(fileExportRow.itemId, [...ids])));
  for (const row of rows)
    cells.set(
      `${row.itemId}/${row.combination}`,
      Object.fromEntries((made?.columns ?? []).map((one, at): [string, string] => [one.id, row.cells[at] ?? ''])),
    );
  return cells;
}

const placeOf = (identity: Identity | undefined): string | null =>
  identity && 'item' in identity && identity.item !== null ? `${identity.item}/${identity.key ?? ''}` : null;

/** How each column is written, seen from these rows. */
const shapesOf = (
  columns: readonly (Column | null)[],
  rows: readonly FileRow[],
  was: (at: number) => Record<string, string> | undefined,
): Map<string, Shape> =>
  new Map(
    columns.flatMap((column, at): [string, Shape][] => {
      if (!column) return [];
      const pairs = rows.map((row, index) => ({ text: row.cells[at] ?? '', exported: was(index)?.[column.id] }));
      return [[column.id, shapeOf(column, pairs)]];
    }),
  );

/** A row that its stock number ties to an item says nothing else by writing it in small letters or capitals. */
function asTied(cells: readonly string[], columns: readonly (Column | null)[], sku: string): readonly string[] {
  const at = columns.findIndex((one) => one?.id === 'sku');
  const said = cells[at]?.trim() ?? '';
  const isSame = said !== sku && said.toLowerCase() === sku.toLowerCase();
  return isSame && !columns.some((one) => one?.id === 'row.item') ? cells.with(at, sku) : cells;
}

type Named = { item: Item | null; combination: Variation | null };

/** What a row is of; or why it is of nothing that can be changed. */
function namedBy(
  identity: Identity | undefined,
  line: number,
  items: ReadonlyMap<number, Item>,
  { met, options }: Comparison,
): Named | { why: string } {
  if (!identity || 'why' in identity) return { why: identity?.why ?? 'It is of no item' };
  const place = placeOf(identity);
  if (place === null) return options.createNew ? { item: null, combination: null } : { why: 'There is no such item' };
  const before = met.get(place);
  if (before !== undefined) return { why: `This is said in line ${before} already` };
  met.set(place, line);
  const item = items.get(identity.item ?? 0);
  if (!item) return { why: `There is no item ${identity.item}` };
  if (!identity.key) return { item, combination: null };
  const combination = item.variations.find((one) => one.key === identity.key);
  return combination ? { item, combination } : { why: 'This combination is gone' };
}

/** Compares rows of a file with what is there, and with what was written out. */
export async function compareRows(rows: readonly FileRow[], how: Comparison): Promise<Compared> {
  const db = database();
  const { columns, there } = how;
  const identities = await identifyRows(db, rows, columns);
  const ids = [...new Set(identities.flatMap((one) => ('item' in one && one.item !== null ? [one.item] : [])))];
  const items = new Map((await loadItems(db, ids)).map((one) => [one.id, one]));
  const named = accountsIn(columns);
  const shops = there.accounts.filter((one) => named.includes(one.id));
  const listings =
    shops.length && ids.length
      ? groupByItem(await db.select().from(listing).where(inArray(listing.itemId, ids)))
      : new Map<number, never[]>();
  const written = await exportedCells(db, how.exportId, ids);
  const shapes = shapesOf(columns, rows, (at) => written.get(placeOf(identities[at]) ?? ''));
  const counts: ImportCounts = { same: 0, kept: 0, change: 0, conflict: 0, new: 0, refused: 0 };
  const kept = rows.flatMap((row, at): KeptRow[] => {
    const of = namedBy(identities[at], row.line, items, how);
    const item = 'why' in of ? null : of.item;
    const combination = 'why' in of ? null : of.combination;
    const plan =
      'why' in of
        ? { kind: 'refused' as const, why: of.why, column: null }
        : planRow({
            columns,
            cells: asTied(row.cells, columns, (combination ?? item)?.sku ?? ''),
            record: item && tableRecord(item, listings.get(item.id) ?? [], shops),
            combination,
            exported: written.get(placeOf(identities[at]) ?? ''),
            shapes,
            options: how.options,
          });
    counts[plan.kind]++;
    if (plan.kind === 'same') {
      counts.kept += plan.kept;
      return [];
    }
    const isRefused = plan.kind === 'refused';
    const title = isRefused ? '' : (plan.cells.find((one) => one.column === 'title')?.file ?? '');
    return [
      {
        line: row.line,
        kind: plan.kind,
        itemId: item?.id ?? null,
        combination: combination?.key ?? '',
        label: (item ? `${item.sku} ${item.title}` : title).slice(0, 200),
        raw: row.cells,
        cells: isRefused ? [] : plan.cells,
        why: isRefused ? plan.why.slice(0, 300) : null,
        column: isRefused ? plan.column : null,
      },
    ];
  });
  return { kept, counts };
}
