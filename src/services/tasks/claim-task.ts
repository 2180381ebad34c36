import { and, asc, eq, lte, or, sql } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { type TaskRow, task } from '../../db/schema';
import { taskLease } from '../records/tasks/start-task';

const isOpen = or(
  and(eq(task.state, 'waiting'), lte(task.dueAt, sql`utc_timestamp(3)`)),
  and(eq(task.state, 'running'), lte(task.leaseUntil, sql`utc_timestamp(3)`)),
);

/** Takes the next task that is due, or whose holder gave no sign of life; nobody else gets the same. */
export async function claimTask(holder: string): Promise<TaskRow | null> {
  // Mostly there is none; then one look has to do.
  const [any] = await database().select({ id: task.id }).from(task).where(isOpen).limit(1);
  return any ? claimOpen(holder) : null;
}

const claimOpen = (holder: string): Promise<TaskRow | null> =>
  transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(task)
      .where(isOpen)
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
