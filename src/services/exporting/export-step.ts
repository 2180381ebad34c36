import { eq, inArray, sql } from 'drizzle-orm';
import { rowsOf } from '../../core/table';
import { transaction } from '../../db/client';
import { fileExport, fileExportRow, listing, type TaskRow } from '../../db/schema';
import { advanceTask } from '../records/advance-task';
import { fileColumns } from '../records/file-columns';
import { groupByItem, loadItems } from '../records/load-items';
import { accountsIn, tableRecord } from '../records/table-record';

/** These items, in the order of their numbers, as rows of this export. */
export type ExportTask = { exportId: number; ids: number[] };

const portion = 500;

/** Keeps the rows of the next items, and that it did, in one short transaction. */
export const exportStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  transaction(async (tx) => {
    const { exportId, ids } = task.input as ExportTask; // written by `beginExport`
    const from = (task.cursor as number | null) ?? 0; // written below
    const some = ids.slice(from, from + portion);
    const [made] = await tx.select().from(fileExport).where(eq(fileExport.id, exportId));
    const { find, accounts } = await fileColumns(tx);
    // A field that is gone meanwhile is an empty column.
    const columns = (made?.columns ?? []).flatMap((one) => find(one.id) ?? []);
    const named = accountsIn(columns);
    const shops = accounts.filter((one) => named.includes(one.id));
    const listings = shops.length
      ? groupByItem(await tx.select().from(listing).where(inArray(listing.itemId, some)))
      : new Map<number, never[]>();
    const items = await loadItems(tx, some);
    const rows = items.flatMap((item) =>
      rowsOf(tableRecord(item, listings.get(item.id) ?? [], shops), columns).map(
        ({ combination, cells }, position) => ({
          exportId,
          itemId: item.id,
          position,
          combination: combination ?? '',
          cells,
        }),
      ),
    );
    if (rows.length) await tx.insert(fileExportRow).values(rows);
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
