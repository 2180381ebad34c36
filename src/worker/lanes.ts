import { and, eq, sql } from 'drizzle-orm';
import { database } from '../db/client';
import { rowsOf } from '../db/rows';
import { account, job, workerPresence } from '../db/schema';

const leaseSeconds = 8;

/**
 * One worker at a time sends for an account: it holds the account's lane by a lease that it renews. A dead worker's
 * lease runs out and another one takes the lane, with the jobs that were under way.
 */
export async function takeLane(accountId: number, worker: string): Promise<boolean> {
  const [result] = await database()
    .update(account)
    .set({ laneOwner: worker, laneUntil: sql`utc_timestamp(3) + interval ${sql.raw(String(leaseSeconds))} second` })
    .where(
      and(
        eq(account.id, accountId),
        sql`(${account.laneOwner} = ${worker} or ${account.laneUntil} is null or ${account.laneUntil} < utc_timestamp(3))`,
      ),
    );
  return result.affectedRows === 1;
}

/** A request lasts no longer; what a worker that is gone sent may arrive until then. */
const longestRequestSeconds = 21;

/**
 * Jobs that another worker had begun, or this one before the database failed under it, go back into the line; what
 * they sent is kept with them. Where no key is honoured, a creation waits out the longest request before it is looked for
 * and repeated: it could still be under way.
 * @param running the jobs that this worker really has under way
 */
export async function reclaimJobs(
  accountId: number,
  worker: string,
  running: number[],
  honoursKey: boolean,
): Promise<number> {
  const lost = sql`(${job.leaseOwner} is null or ${job.leaseOwner} <> ${worker} or ${job.id} not in ${[0, ...running]})`;
  const sentAt = sql`str_to_date(left(json_value(${job.request}, '$.firstSentAt'), 19), '%Y-%m-%dT%H:%i:%s')`;
  const settled = sql`if(json_value(${job.request}, '$.kind') = 'create', coalesce(greatest(utc_timestamp(3), ${sentAt} + interval ${sql.raw(String(longestRequestSeconds))} second), utc_timestamp(3)), utc_timestamp(3))`;
  const [result] = await database()
    .update(job)
    .set({ state: 'waiting', dueAt: honoursKey ? sql`utc_timestamp(3)` : settled, leaseOwner: null })
    .where(and(eq(job.accountId, accountId), eq(job.state, 'running'), lost));
  return result.affectedRows;
}

const presentSeconds = 6;

/** Says that this worker is there, and how many are. */
export async function bePresent(worker: string): Promise<number> {
  const db = database();
  await db.execute(
    sql`insert into worker_presence (name, seen_at) values (${worker}, utc_timestamp(3)) on duplicate key update seen_at = utc_timestamp(3)`,
  );
  await db.execute(sql`delete from worker_presence where seen_at < utc_timestamp(3) - interval 1 minute`);
  const [row] = rowsOf<{ count: number }>(
    await db.execute(
      sql`select count(*) as count from worker_presence where seen_at > utc_timestamp(3) - interval ${sql.raw(String(presentSeconds))} second`,
    ),
  );
  return Math.max(1, Number(row?.count ?? 1));
}

/** Gives one account up, so that another worker takes it. */
export async function giveLane(accountId: number, worker: string): Promise<void> {
  await database()
    .update(account)
    .set({ laneOwner: null, laneUntil: null })
    .where(and(eq(account.id, accountId), eq(account.laneOwner, worker)));
}

export async function releaseLanes(worker: string): Promise<void> {
  await database().delete(workerPresence).where(eq(workerPresence.name, worker));
  await database().update(account).set({ laneOwner: null, laneUntil: null }).where(eq(account.laneOwner, worker));
}

/** Whether jobs and events of an account are due. */
export type Due = { jobs: boolean; events: boolean };
export const nothingDue: Due = { jobs: false, events: false };

/** One look for all accounts: where nothing is due nothing else is asked. */
export async function whatIsDue(): Promise<Map<number, Due>> {
  const rows = rowsOf<{ id: number; jobs: number; events: number }>(
    await database().execute(sql`select a.id,
      exists(select 1 from job j where j.account_id = a.id and j.state = 'waiting' and j.due_at <= utc_timestamp(3)) as jobs,
      exists(select 1 from inbox i where i.account_id = a.id and i.state = 'waiting' and i.due_at <= utc_timestamp(3)) as events
      from account a`),
  );
  return new Map(rows.map(({ id, jobs, events }) => [id, { jobs: Boolean(jobs), events: Boolean(events) }]));
}
