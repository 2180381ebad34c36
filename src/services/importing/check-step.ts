import { eq } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { fileImport, fileImportRow, type ImportCounts, type TaskRow } from '../../db/schema';
import type { Layout } from '../../files';
import { fileColumns } from '../records/items/file-columns';
import { advanceTask } from '../records/tasks/advance-task';
import { compareRows } from './compare-rows';
import { importPath } from './import-path';
import { loadImport } from './load-import';
import { leaveOpen, nextRows, openAt } from './open-file';
import { openImport } from './open-import';

/** Every row of a file is compared with its item. */
export type CheckTask = { importId: number };
type Cursor = { line: number; counts: ImportCounts };

export const noCounts: ImportCounts = { same: 0, kept: 0, change: 0, conflict: 0, new: 0, refused: 0 };
const portion = 1_000;
const atOnce = 200;

const sum = (a: ImportCounts, b: ImportCounts): ImportCounts => ({
  same: a.same + b.same,
  kept: a.kept + b.kept,
  change: a.change + b.change,
  conflict: a.conflict + b.conflict,
  new: a.new + b.new,
  refused: a.refused + b.refused,
});

/** Compares the next rows of a file, and keeps those that say something else than the record. */
export async function checkStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { importId } = task.input as CheckTask; // written by `beginCheck`
  const cursor = (task.cursor as Cursor | null) ?? { line: 0, counts: noCounts }; // written below
  const made = await loadImport(database(), importId);
  const layout = made.layout as Layout; // written by `receiveFile`
  const here = await openAt(task.id, await openImport(importPath(made.contents)), layout, cursor.line);
  const rows = await nextRows(here, portion);
  const there = await fileColumns(database(), made.ties);
  const { kept, counts } = await compareRows(rows, {
    columns: made.ties.map((id) => (id === null ? null : (there.find(id) ?? null))),
    there,
    exportId: made.exportId,
    options: made.options,
    met: here.met,
  });
  const isDone = rows.length < portion;
  const next: Cursor = { line: here.line, counts: sum(cursor.counts, counts) };
  const last = await transaction(async (tx) => {
    const [held] = await tx
      .select({ taskId: fileImport.taskId })
      .from(fileImport)
      .where(eq(fileImport.id, importId))
      .for('update');
    // Said otherwise meanwhile: what was compared with what was said before is worth nothing, and nothing more is.
    if (held?.taskId !== task.id)
      return advanceTask(tx, task, holder, { cursor, done: 0, finished: true, result: { importId } });
    for (let from = 0; from < kept.length; from += atOnce)
      await tx.insert(fileImportRow).values(kept.slice(from, from + atOnce).map((row) => ({ importId, ...row })));
    await tx
      .update(fileImport)
      .set({ counts: next.counts, ...(isDone ? { state: 'checked' as const } : {}) })
      .where(eq(fileImport.id, importId));
    const result = { importId, ...next.counts };
    return advanceTask(tx, task, holder, { cursor: next, done: rows.length, finished: isDone, result });
  });
  if (last.state === 'running') leaveOpen(task.id, here);
  return last;
}
