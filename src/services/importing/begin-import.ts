import { and, eq, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { fileImport, fileImportRow, run, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { sendPartSchema } from '../changes/commit/queue-changes';
import { holderHere, startTask } from '../records/tasks/start-task';
import { workOnTask } from '../records/tasks/work-on-task';
import { type ImportTask, importStep } from './import-step';
import { loadImport } from './load-import';

export const beginImportSchema = z
  .object({
    send: z.boolean().describe('Also send the changes to the marketplaces'),
    part: sendPartSchema.optional().describe('Send only to these accounts, only these fields'),
  })
  .strict();
export const begunImportSchema = z.object({
  runId: z.number(),
  taskId: z.number(),
  rows: z.number(),
  finished: z.boolean(),
});

/** Carries out what was seen before: changes and new items, as one run that can be taken back. */
export async function beginImport(
  actor: Actor,
  id: number,
  { send, part }: z.infer<typeof beginImportSchema>,
): Promise<z.infer<typeof begunImportSchema>> {
  const holder = holderHere();
  const { begun, rows } = await transaction(async (tx) => {
    const [held] = await tx
      .select({ state: fileImport.state })
      .from(fileImport)
      .where(eq(fileImport.id, id))
      .for('update');
    const row = await loadImport(tx, id);
    if (held?.state !== 'checked')
      throw new NettingError('too-late', held?.state === 'open' ? 'Compare it first' : 'This file has been applied');
    const [count] = await tx
      .select({ rows: sql<number>`count(*)` })
      .from(fileImportRow)
      .where(and(eq(fileImportRow.importId, id), eq(fileImportRow.leftOut, false), ne(fileImportRow.kind, 'refused')));
    const total = Number(count?.rows ?? 0);
    if (total === 0) throw new NettingError('invalid', 'Nothing in this file would change anything', { field: 'file' });
    const title = `From ${row.name}`.slice(0, 200);
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'edit', title, detail: { import: id, send }, itemCount: 0, byName: actor.name });
    const input: ImportTask = { importId: id, send, part };
    const started = await startTask(tx, actor, { kind: 'import', title, input, total, runId, holder });
    await tx.update(fileImport).set({ state: 'applying', runId, taskId: started.id }).where(eq(fileImport.id, id));
    return { begun: started, rows: total };
  });
  const last = await workOnTask(begun, holder, importStep);
  if (last.state === 'done') await database().delete(task).where(eq(task.id, begun.id));
  return { runId: begun.runId ?? 0, taskId: begun.id, rows, finished: last.state === 'done' };
}
