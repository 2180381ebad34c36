import { eq, inArray, sql } from 'drizzle-orm';
import { rowsOf } from '../../core/table';
import { type Executor, transaction } from '../../db/client';
import { fileExport, fileExportRow, listing, type TaskRow } from '../../db/schema';
import { fileColumns } from '../records/items/file-columns';
import { groupByItem, loadItems } from '../records/items/load-items';
import { accountsIn, tableRecord } from '../records/items/table-record';
import { advanceTask } from '../records/tasks/advance-task';
import { type ExportRow, otherRows } from './other-rows';

/** These items, in the order of their numbers, as rows of this export. */
export type ExportTask = { exportId: number; ids: number[] };

const portion = 1_000;

/** Items as rows, each with its combinations. */
async function itemRows(
  tx: Executor,
  ids: number[],
  chosen: readonly { id: string }[],
): Promise<(ExportRow & { combination: string })[]> {
  const { find, accounts } = await fileColumns(
    tx,
    chosen.map((one) => one.id),
  );
  // A field that is gone meanwhile is an empty column.
  const columns = chosen.map((one) => find(one.id) ?? null);
  const there = columns.flatMap((one) => one ?? []);
  const named = accountsIn(there);
  const shops = accounts.filter((one) => named.includes(one.id));
  const listings = shops.length
    ? groupByItem(await tx.select().from(listing).where(inArray(listing.itemId, ids)))
    : new Map<number, never[]>();
  return (await loadItems(tx, ids)).flatMap((item) =>
    rowsOf(tableRecord(item, listings.get(item.id) ?? [], shops), there).map(({ combination, cells }) => {
      const left = [...cells];
      return {
        itemId: item.id,
        combination: combination ?? '',
        cells: columns.map((column) => (column ? (left.shift() ?? '') : '')),
      };
    }),
  );
}

/** Keeps the rows of the next items, and that it did, in one short transaction. */
export const exportStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  transaction(async (tx) => {
    const { exportId, ids } = task.input as ExportTask; // written by `beginExport`
    const from = (task.cursor as number | null) ?? 0; // written below
    const some = ids.slice(from, from + portion);
    const [made] = await tx.select().from(fileExport).where(eq(fileExport.id, exportId));
    const kind = made?.kind ?? 'items';
    const rows =
      kind === 'items'
        ? await itemRows(tx, some, made?.columns ?? [])
        : await otherRows(kind, tx, { ids: some, columns: made?.columns ?? [] });
    const places = new Map<number, number>();
    const kept = rows.map((row) => {
      const position = places.get(row.itemId) ?? 0;
      places.set(row.itemId, position + 1);
      return { exportId, position, combination: '', ...row };
    });
    for (let at = 0; at < kept.length; at += portion)
      await tx.insert(fileExportRow).values(kept.slice(at, at + portion));
    const isDone = from + some.length >= ids.length;
    await tx
      .update(fileExport)
      .set({ rowCount: sql`${fileExport.rowCount} + ${rows.length}`, isDone })
      .where(eq(fileExport.id, exportId));
    return advanceTask(tx, task, holder, {
      cursor: from + some.length,
      done: some.length,
      finished: isDone,
      result: { exportId },
    });
  });
