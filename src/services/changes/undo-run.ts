import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { run, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { holderHere, startTask } from '../records/start-task';
import { workOnTask } from '../records/work-on-task';
import { noUndoResult, type UndoResult, type UndoTask, undoStep } from './undo-step';

export const undoRunSchema = z.object({ send: z.boolean().default(false) }).strict();

export const undoneSchema = z.object({
  runId: z.number(),
  taskId: z.number(),
  /** Items that are as they were, by now. */
  items: z.number(),
  total: z.number(),
  finished: z.boolean(),
  changedSince: z.array(
    z.object({
      itemId: z.number(),
      sku: z.string(),
      title: z.string(),
      field: z.string(),
    }),
  ),
});
export type Undone = z.infer<typeof undoneSchema>;

/**
 * Takes a whole run back, also days later. What somebody changed since stays and is named; units come back as what was
 * moved, so that what was sold stays sold.
 */
export async function undoRun(actor: Actor, runId: number, { send }: z.infer<typeof undoRunSchema>): Promise<Undone> {
  const holder = holderHere();
  const begun = await transaction(async (tx) => {
    const [original] = await tx.select().from(run).where(eq(run.id, runId)).for('update');
    if (!original) throw new NettingError('not-found', 'There is no such change');
    if (original.undoneBy) throw new NettingError('too-late', 'This change was taken back already');
    const [under] = await tx.select({ state: task.state }).from(task).where(eq(task.runId, runId));
    if (under?.state === 'running' || under?.state === 'waiting')
      throw new NettingError('conflict', 'This change is still under way', { fix: 'Stop it, then take it back' });
    const title = `Taken back: ${original.title}`.slice(0, 200);
    const [{ insertId: undoId }] = await tx
      .insert(run)
      .values({ kind: 'undo', title, detail: {}, itemCount: 0, undoOf: runId, byName: actor.name });
    await tx.update(run).set({ undoneBy: undoId }).where(eq(run.id, runId));
    const what: UndoTask = { run: runId, send };
    return startTask(tx, actor, { kind: 'undo', title, input: what, total: original.itemCount, runId: undoId, holder });
  });
  const last = await workOnTask(begun, holder, undoStep);
  const { items, changedSince } = (last.result ?? noUndoResult) as UndoResult; // written by `undoStep`
  return {
    runId: begun.runId ?? 0,
    taskId: begun.id,
    items,
    total: begun.totalCount,
    finished: last.state === 'done',
    changedSince,
  };
}
