import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { transaction } from '../../../db/client';
import { run, task } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { holderHere, startTask } from '../../records/tasks/start-task';
import { workOnTask } from '../../records/tasks/work-on-task';
import { changedSinceSchema, noUndoResult, type UndoResult, type UndoTask, undoStep } from './undo-step';

const ids = z.array(z.number().int().positive()).min(1).max(5_000).optional();

export const undoRunSchema = z
  .object({
    send: z.boolean().default(false),
    items: ids.describe('Only these items of the run'),
    overwrite: ids.describe('Only these changes, also where somebody has changed the value since'),
  })
  .strict();

export const undoneSchema = z.object({
  runId: z.number(),
  taskId: z.number(),
  /** Items that are as they were, by now. */
  items: z.number(),
  total: z.number(),
  finished: z.boolean(),
  changedSince: z.array(changedSinceSchema),
});
export type Undone = z.infer<typeof undoneSchema>;

/** A title without what was said of it before. */
const bare = (title: string) => title.replace(/^(Taken back|Done again): /, '');

/**
 * Takes a run back, whole or in part, also days later. What somebody changed since stays and is named with all three
 * values, or is taken back all the same where that is asked for; units come back as what was moved, so that what was sold
 * stays sold. What takes back can be taken back itself.
 */
export async function undoRun(
  actor: Actor,
  runId: number,
  { send, items: some, overwrite }: z.infer<typeof undoRunSchema>,
): Promise<Undone> {
  const isWhole = some === undefined && overwrite === undefined;
  const holder = holderHere();
  const begun = await transaction(async (tx) => {
    const [original] = await tx.select().from(run).where(eq(run.id, runId)).for('update');
    if (!original) throw new NettingError('not-found', 'There is no such change');
    if (original.undoneBy && isWhole) throw new NettingError('too-late', 'This change was taken back already');
    const [under] = await tx.select({ state: task.state }).from(task).where(eq(task.runId, runId));
    if (under?.state === 'running' || under?.state === 'waiting')
      throw new NettingError('conflict', 'This change is still under way', { fix: 'Stop it, then take it back' });
    const title = (
      original.kind === 'undo' ? `Done again: ${bare(original.title)}` : `Taken back: ${original.title}`
    ).slice(0, 200);
    const [{ insertId: undoId }] = await tx
      .insert(run)
      .values({ kind: 'undo', title, detail: {}, itemCount: 0, undoOf: runId, byName: actor.name });
    if (isWhole) await tx.update(run).set({ undoneBy: undoId }).where(eq(run.id, runId));
    // What was taken back holds again, and can be taken back once more.
    if (original.undoOf) await tx.update(run).set({ undoneBy: null }).where(eq(run.id, original.undoOf));
    const what: UndoTask = { run: runId, send, items: some, overwrite };
    const total = some?.length ?? overwrite?.length ?? original.itemCount;
    return startTask(tx, actor, { kind: 'undo', title, input: what, total, runId: undoId, holder });
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
