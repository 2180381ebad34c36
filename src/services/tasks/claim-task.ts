import { and, asc, eq, lte, or, sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { type TaskRow, task } from '../../db/schema';
import { taskLease } from '../records/start-task';

/** Takes the next task that is due, or whose holder gave no sign of life; nobody else gets the same. */
export const claimTask = (holder: string): Promise<TaskRow | null> =>
  transaction(async (tx) => {
    const due = and(eq(task.state, 'waiting'), lte(task.dueAt, sql`utc_timestamp(3)`));
    const left = and(eq(task.state, 'running'), lte(task.leaseUntil, sql`utc_timestamp(3)`));
    const [row] = await tx
      .select()
      .from(task)
      .where(or(due, left))
      .orderBy(asc(task.dueAt), asc(task.id))
      .limit(1)
      .for('update', { skipLocked: true });
    if (!row) return null;
    const startedAt = row.startedAt ?? new Date();
    await tx
      .update(task)
      .set({ state: 'running', leaseOwner: holder, leaseUntil: taskLease, startedAt })
      .where(eq(task.id, row.id));
    return { ...row, state: 'running', leaseOwner: holder, startedAt };
  });
