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

/**
 * How many items are held at once: few to begin with, then as many as take about a third of a second, so that a sale in
 * the middle never waits for long.
 */
const firstPortion = 200;
const mostAtOnce = 3_000;
const aimMs = 350;

const nextSize = (size: number, tookMs: number): number =>
  Math.round(Math.max(25, Math.min(mostAtOnce, size * 2, (size * aimMs) / Math.max(1, tookMs))));

/** Carries out the next portion of a change of many, and keeps that it did, in one short transaction. */
export async function editStep(task: TaskRow, holder: string, most?: number): Promise<TaskRow> {
  const { ids, steps, send } = task.input as EditTask; // written by `applyEdit`
  const { at, size } = (task.cursor ?? { at: 0, size: firstPortion }) as { at: number; size: number }; // written below
  const before = (task.result ?? noEditResult) as EditResult; // written below
  const portion = ids.slice(at, at + (most ?? size));
  const began = performance.now();
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
      cursor: { at: at + portion.length, size: nextSize(portion.length, performance.now() - began) },
      done: portion.length,
      finished: at + portion.length >= ids.length,
      result,
    });
  });
}
