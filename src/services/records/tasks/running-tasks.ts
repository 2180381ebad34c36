import { asc, eq } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { type TaskRow, task } from '../../../db/schema';

/** What is left at the pace so far, in whole seconds; null while nothing can be said. */
export function secondsLeft(
  row: Pick<TaskRow, 'state' | 'startedAt' | 'doneCount' | 'totalCount'>,
  now: Date,
): number | null {
  if (row.state !== 'running' || !row.startedAt || row.doneCount < 1) return null;
  const perOne = (now.getTime() - row.startedAt.getTime()) / row.doneCount;
  return Math.max(0, Math.ceil(((row.totalCount - row.doneCount) * perOne) / 1_000));
}

/** Long work that is under way, for the foot of every page. */
export async function runningTasks(db: Executor) {
  const now = new Date();
  const { id, title, state, startedAt, doneCount, totalCount } = task;
  const rows = await db
    .select({ id, title, state, startedAt, doneCount, totalCount })
    .from(task)
    .where(eq(task.state, 'running'))
    .orderBy(asc(task.id))
    .limit(5);
  return rows.map((row) => ({
    id: row.id,
    title: row.title,
    done: row.doneCount,
    total: row.totalCount,
    secondsLeft: secondsLeft(row, now),
  }));
}
