import { and, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { type TaskRow, task } from '../../../db/schema';
import { taskLease } from './start-task';

/** The lease ran out and somebody else holds the task, or a person has stopped it: nothing of this step may be kept. */
export class LostTask extends Error {
  constructor(id: number) {
    super(`task ${id} is held by somebody else`);
    this.name = 'LostTask';
  }
}

export type TaskStep = {
  cursor: unknown;
  /** Things done in this step. */
  done: number;
  finished: boolean;
  result: unknown;
  runId?: number;
};

/**
 * Keeps how far a task has come, in the transaction of the step itself: what was done and that it was done are stored
 * together, so that a step is never done twice.
 */
export async function advanceTask(db: Executor, row: TaskRow, holder: string, step: TaskStep): Promise<TaskRow> {
  const doneCount = row.doneCount + step.done;
  const state = step.finished ? ('done' as const) : ('running' as const);
  const kept = { cursor: step.cursor, doneCount, result: step.result, state, runId: step.runId ?? row.runId };
  const [{ affectedRows }] = await db
    .update(task)
    .set({ ...kept, leaseUntil: taskLease, finishedAt: step.finished ? sql`utc_timestamp(3)` : null })
    .where(and(eq(task.id, row.id), eq(task.leaseOwner, holder), eq(task.state, 'running')));
  if (affectedRows !== 1) throw new LostTask(row.id);
  return { ...row, ...kept };
}

/**
 * The same where portions of one task are carried out side by side: the task is held and read anew, so that each adds to
 * what the others have kept meanwhile.
 */
export async function advanceBeside(
  db: Executor,
  row: Pick<TaskRow, 'id'>,
  holder: string,
  step: (now: TaskRow) => TaskStep,
): Promise<TaskRow> {
  const { input: _input, ...columns } = getTableColumns(task);
  const [now] = await db
    .select(columns)
    .from(task)
    .where(and(eq(task.id, row.id), eq(task.leaseOwner, holder), eq(task.state, 'running')))
    .for('update');
  if (!now) throw new LostTask(row.id);
  // What it was asked to do never changes, and may be long.
  const whole: TaskRow = { ...now, input: null };
  return advanceTask(db, whole, holder, step(whole));
}

/** Gives a task back that is not finished, for a worker to go on with. */
export async function releaseTask(db: Executor, id: number, holder: string): Promise<void> {
  await db
    .update(task)
    .set({ state: 'waiting', leaseOwner: null, leaseUntil: null })
    .where(and(eq(task.id, id), eq(task.leaseOwner, holder), eq(task.state, 'running')));
}
