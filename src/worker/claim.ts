import { inArray, sql } from 'drizzle-orm';
import { transaction } from '../db/client';
import { rowsOf } from '../db/rows';
import { job } from '../db/schema';
export type JobRow = typeof job.$inferSelect;

/** Takes due jobs of an account: ends and lower quantities by themselves, or the others by priority and then in the order they came. */
export async function claimJobs(
  accountId: number,
  worker: string,
  most: number,
  which: 'urgent' | 'others',
): Promise<JobRow[]> {
  return transaction(async (tx) => {
    const urgent = which === 'urgent' ? sql`and priority <= 1` : sql`and priority > 1`;
    const rows = rowsOf<{ id: number }>(
      await tx.execute(
        sql`select id from job where account_id = ${accountId} and state = 'waiting' and due_at <= utc_timestamp(3) ${urgent} order by priority, id limit ${most} for update skip locked`,
      ),
    );
    if (rows.length === 0) return [];
    const ids = rows.map((row) => row.id);
    await tx
      .update(job)
      .set({
        state: 'running',
        leaseOwner: worker,
        lease: sql`${job.lease} + 1`,
        attempts: sql`least(${job.attempts} + 1, 1000)`,
      })
      .where(inArray(job.id, ids));
    const claimed = await tx.select().from(job).where(inArray(job.id, ids));
    return ids.flatMap((id) => claimed.find((row) => row.id === id) ?? []);
  });
}
