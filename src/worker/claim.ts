import { and, eq, inArray, sql } from 'drizzle-orm';
import { priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { rowsOf } from '../db/rows';
import { job } from '../db/schema';
export type JobRow = typeof job.$inferSelect;

const taken = (worker: string) => ({
  state: 'running' as const,
  leaseOwner: worker,
  lease: sql`${job.lease} + 1`,
  attempts: sql`least(${job.attempts} + 1, 1000)`,
});
const isDue = (accountId: number) =>
  sql`account_id = ${accountId} and state = 'waiting' and due_at <= utc_timestamp(3)`;

/**
 * Takes due ends and lower quantities of an account. One that a change of many holds at the moment is waited for, each by
 * itself: passed over, it could be held again whenever it is looked for.
 */
export async function claimUrgent(accountId: number, worker: string, most: number): Promise<JobRow[]> {
  const rows = rowsOf<{ id: number }>(
    await database().execute(
      sql`select id from job where ${isDue(accountId)} and priority <= ${priorities.quantity} order by priority, id limit ${most}`,
    ),
  );
  const claimed = await Promise.all(
    rows.map(async ({ id }) => {
      const [{ affectedRows }] = await database()
        .update(job)
        .set(taken(worker))
        .where(and(eq(job.id, id), eq(job.state, 'waiting')));
      if (affectedRows !== 1) return [];
      return database().select().from(job).where(eq(job.id, id));
    }),
  );
  return claimed.flat();
}

/** Takes the other due jobs of an account, by priority and then in the order they came; those that are held are passed over. */
export async function claimOthers(accountId: number, worker: string, most: number): Promise<JobRow[]> {
  return transaction(async (tx) => {
    const rows = rowsOf<{ id: number }>(
      await tx.execute(
        sql`select id from job where ${isDue(accountId)} and priority > ${priorities.quantity} order by priority, id limit ${most} for update skip locked`,
      ),
    );
    if (rows.length === 0) return [];
    const ids = rows.map((row) => row.id);
    await tx.update(job).set(taken(worker)).where(inArray(job.id, ids));
    const claimed = await tx.select().from(job).where(inArray(job.id, ids));
    return ids.flatMap((id) => claimed.find((row) => row.id === id) ?? []);
  });
}
