import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { database, transaction } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { run, task } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { knowSelection, selectionWhere } from '../../records/items/selection';
import { holderHere } from '../../records/tasks/start-task';
import { workOnTask } from '../../records/tasks/work-on-task';
import { sendPartSchema } from '../commit/queue-changes';
import { beginEdit } from './begin-edit';
import { checkSteps } from './check-steps';
import { editSchema } from './edit-schema';
import { type EditResult, editStep, makesClips, noEditResult } from './edit-step';
import { followsAnother } from './follows-another';
import { saySteps } from './say-steps';

export const applyEditSchema = editSchema.extend({
  send: z.boolean().describe('Also send the changes to the marketplaces'),
  part: sendPartSchema
    .optional()
    .describe('Send only to these accounts, only these fields; the rest stays changed and not sent'),
  at: z.iso.datetime().optional().describe('Not before then; at once when left out'),
  title: z.string().max(200).optional().describe('How it is called in the outbox; what its steps do, when left out'),
});

export const appliedEditSchema = z.object({
  runId: z.number(),
  taskId: z.number(),
  /** Items that were changed, listings that are told, and items that could not be changed: by now. */
  items: z.number(),
  listings: z.number(),
  refused: z.number(),
  /** Of how many it is; what is left goes on in the background. */
  total: z.number(),
  finished: z.boolean(),
});
export type AppliedEdit = z.infer<typeof appliedEditSchema>;

/**
 * Applies a series of steps to all chosen items, with history, undo data and, if wanted, jobs. In short portions, each
 * item whole or not at all; few items are done when it answers, many go on in the background; so does
 * what follows another change of the same items.
 */
export async function applyEdit(
  actor: Actor,
  input: z.infer<typeof applyEditSchema>,
  routineId?: number,
): Promise<AppliedEdit> {
  const db = database();
  await checkSteps(db, input.steps);
  await knowSelection(input.selection);
  const ids = rowsOf<{ id: number }>(
    await db.execute(sql`select i.id from item i where ${selectionWhere(input.selection)} order by i.id`),
  ).map((row) => row.id);
  if (ids.length === 0) throw new NettingError('invalid', 'Nothing would change', { field: 'steps' });
  const isLater = input.at !== undefined || makesClips(input.steps) || (await followsAnother(db, ids));
  const holder = holderHere();
  const { steps, send, part } = input;
  const title = input.title ?? (await saySteps(db, steps));
  const dueAt = input.at === undefined ? undefined : new Date(input.at);
  if (dueAt && dueAt.getTime() < Date.now())
    throw new NettingError('invalid', 'This time is over', { field: 'at', fix: 'Choose a later one' });
  const order = { ids, steps, send, part, title, routineId, dueAt };
  const begun = await transaction((tx) => beginEdit(tx, actor, isLater ? order : { ...order, holder }));
  const last = isLater ? begun : await workOnTask(begun, holder, (task, here) => editStep(task, here));
  const result = (last.result ?? noEditResult) as EditResult; // written by `editStep`
  const runId = begun.runId ?? 0;
  if (last.state === 'done' && result.items === 0) {
    // Nothing came of it: no run is left behind that could be taken back.
    await transaction(async (tx) => {
      await tx.delete(task).where(eq(task.id, begun.id));
      await tx.delete(run).where(eq(run.id, runId));
    });
    const refused = 'None of these items can be changed this way';
    throw new NettingError('invalid', result.refused ? refused : 'Nothing would change', { field: 'steps' });
  }
  return {
    runId,
    taskId: begun.id,
    items: result.items,
    listings: result.listings,
    refused: result.refused,
    total: ids.length,
    finished: last.state === 'done',
  };
}
