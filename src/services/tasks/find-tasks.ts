import { desc, getTableColumns, ne, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { task, taskKinds, taskStates } from '../../db/schema';
import { secondsLeft } from '../records/tasks/running-tasks';

export const taskViewSchema = z.object({
  id: z.number(),
  kind: z.enum(taskKinds),
  title: z.string(),
  state: z.enum(taskStates),
  /** When it begins, for one that waits. */
  dueAt: z.string(),
  done: z.number(),
  total: z.number(),
  secondsLeft: z.number().nullable(),
  runId: z.number().nullable(),
  message: z.string().nullable(),
  byName: z.string(),
  finishedAt: z.string().nullable(),
});
export type TaskView = z.infer<typeof taskViewSchema>;

/** Long work: what is under way and waits first, then what is over, newest first. */
export async function findTasks(limit = 40): Promise<{ tasks: TaskView[] }> {
  const now = new Date();
  // Without what it was asked to do, which may name a hundred thousand items.
  const { input: _input, cursor: _cursor, result: _result, ...columns } = getTableColumns(task);
  const rows = await database()
    .select(columns)
    .from(task)
    .where(or(ne(task.state, 'done'), sql`${task.finishedAt} > ${new Date(now.getTime() - 7 * 86_400_000)}`))
    .orderBy(sql`field(${task.state}, 'running', 'waiting') = 0`, desc(task.id))
    .limit(limit);
  return {
    tasks: rows.map((row) => ({
      id: row.id,
      kind: row.kind,
      title: row.title,
      state: row.state,
      dueAt: row.dueAt.toISOString(),
      done: row.doneCount,
      total: row.totalCount,
      secondsLeft: secondsLeft(row, now),
      runId: row.runId,
      message: row.message,
      byName: row.byName,
      finishedAt: row.finishedAt?.toISOString() ?? null,
    })),
  };
}
