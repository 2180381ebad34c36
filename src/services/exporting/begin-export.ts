import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { usualColumns } from '../../core/table';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { fileExport, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { fileColumns } from '../records/items/file-columns';
import { knowSelection, selectionSchema, selectionWhere } from '../records/items/selection';
import { holderHere, startTask } from '../records/tasks/start-task';
import { workOnTask } from '../records/tasks/work-on-task';
import { type ExportTask, exportStep } from './export-step';
import { type ExportColumn, exportKinds, otherColumns } from './other-rows';

export const beginExportSchema = z
  .object({
    kind: z.enum(exportKinds).default('items').describe('Rows of what; only items can be read back'),
    selection: selectionSchema,
    columns: z
      .array(z.string().max(120))
      .min(1, 'Choose at least one column')
      .max(200)
      .optional()
      .describe('In this order; the usual ones of its kind where left out'),
    title: z.string().trim().max(200).default('Items'),
  })
  .strict();

export const begunExportSchema = z.object({
  exportId: z.number(),
  taskId: z.number(),
  items: z.number(),
  finished: z.boolean(),
});

/** The columns that were chosen, with those without which a file could not be read back. */
async function chosenColumns(ids: readonly string[]): Promise<{ id: string; label: string }[]> {
  const { find } = await fileColumns(database());
  return [...new Set(['row.item', ...ids, 'row.key'])].map((id) => {
    const column = find(id);
    if (!column) throw new NettingError('invalid', `There is no column ${id}`, { field: 'columns' });
    return { id, label: column.label };
  });
}

/** The same of what is written out to be looked at: these alone, in this order. */
const chosenOf = (all: readonly ExportColumn[], ids: readonly string[] | undefined): ExportColumn[] =>
  [...new Set(ids ?? all.map((one) => one.id))].map((id) => {
    const column = all.find((one) => one.id === id);
    if (!column) throw new NettingError('invalid', `There is no column ${id}`, { field: 'columns' });
    return column;
  });

/** Writes out what is chosen: its rows are kept as they are now, so that a file can be made of them, and compared with them. */
export async function beginExport(
  actor: Actor,
  input: z.infer<typeof beginExportSchema>,
): Promise<z.infer<typeof begunExportSchema>> {
  const db = database();
  const columns =
    input.kind === 'items'
      ? await chosenColumns(input.columns ?? usualColumns)
      : chosenOf(otherColumns[input.kind], input.columns);
  await knowSelection(input.selection);
  const ids = rowsOf<{ id: number }>(
    await db.execute(sql`select i.id from item i where ${selectionWhere(input.selection)} order by i.id`),
  ).map((row) => row.id);
  if (ids.length === 0) throw new NettingError('invalid', 'Nothing is chosen', { field: 'selection' });
  const holder = holderHere();
  const { begun, exportId } = await transaction(async (tx) => {
    const [{ insertId }] = await tx.insert(fileExport).values({
      kind: input.kind,
      title: input.title,
      columns,
      itemCount: ids.length,
      byName: actor.name,
      createdAt: new Date(),
    });
    const order: ExportTask = { exportId: insertId, ids };
    const title = `Writing out ${ids.length.toLocaleString('en')} ${ids.length === 1 ? 'item' : 'items'}`;
    return {
      exportId: insertId,
      begun: await startTask(tx, actor, { kind: 'export', title, input: order, total: ids.length, holder }),
    };
  });
  const last = await workOnTask(begun, holder, exportStep);
  // What was done at once needs no place among the long work.
  if (last.state === 'done') await db.delete(task).where(eq(task.id, begun.id));
  return { exportId, taskId: begun.id, items: ids.length, finished: last.state === 'done' };
}
