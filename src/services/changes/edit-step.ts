import { eq, sql } from 'drizzle-orm';
import type { Operation } from '../../core/edit';
import { ownTransaction } from '../../db/raw';
import { run, type TaskRow } from '../../db/schema';
import { advanceTask } from '../records/advance-task';
import { changePortion } from './change-portion';

/** What a change of many is to do: to these items, in the order of their numbers. */
export type EditTask = { ids: number[]; steps: Operation[]; send: boolean };

/** What it has come to by now. */
export type EditResult = { items: number; listings: number; refused: number; reasons: Record<string, number> };

export const noEditResult: EditResult = { items: 0, listings: 0, refused: 0, reasons: {} };

/** So many items are held at once: less than half a second, so that a sale in the middle never waits for long. */
export const editPortion = 500;

/** Carries out the next portion of a change of many, and keeps that it did, in one short transaction. */
export async function editStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { ids, steps, send } = task.input as EditTask; // written by `applyEdit`
  const { at } = (task.cursor ?? { at: 0 }) as { at: number }; // written below
  const before = (task.result ?? noEditResult) as EditResult; // written below
  const portion = ids.slice(at, at + editPortion);
  const runId = task.runId ?? 0;
  return ownTransaction(async (db, connection) => {
    const done = await changePortion(db, portion, {
      connection,
      actor: { id: task.byId, name: task.byName },
      runId,
      steps,
      send,
    });
    const reasons = { ...before.reasons };
    for (const why of done.reasons) reasons[why] = (reasons[why] ?? 0) + 1;
    const result: EditResult = {
      items: before.items + done.items,
      listings: before.listings + done.listings,
      refused: before.refused + done.reasons.length,
      reasons,
    };
    await db
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + ${done.items}` })
      .where(eq(run.id, runId));
    return advanceTask(db, task, holder, {
      cursor: { at: at + portion.length },
      done: portion.length,
      finished: at + portion.length >= ids.length,
      result,
    });
  });
}
