import { and, eq, inArray, or, sql } from 'drizzle-orm';
import { priorities } from '../core/sync';
import { database } from '../db/client';
import { rowsOf } from '../db/rows';
import { account, job, workerPresence } from '../db/schema';
import { requestTimeoutMs } from '../markets';
import { leaseMs } from './lease';

const leaseSeconds = leaseMs / 1_000;

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

/** Renews the leases of lanes that are held still. Returns which those are. */
export async function keepLanes(ids: number[], worker: string): Promise<Set<number>> {
  const db = database();
  const own = and(inArray(account.id, ids), eq(account.laneOwner, worker));
  await db
    .update(account)
    .set({ laneUntil: sql`utc_timestamp(3) + interval ${sql.raw(String(leaseSeconds))} second` })
    .where(own);
  const rows = await db.select({ id: account.id }).from(account).where(own);
  return new Set(rows.map((row) => row.id));
}

export type Running = { id: number; accountId: number; leaseOwner: string | null; lease: number };

/** Jobs of these accounts that are marked as under way. */
export async function runningJobs(ids: number[]): Promise<Running[]> {
  if (ids.length === 0) return [];
  const { id, accountId, leaseOwner, lease } = job;
  return database()
    .select({ id, accountId, leaseOwner, lease })
    .from(job)
    .where(and(inArray(accountId, ids), eq(job.state, 'running')));
}

/** A request lasts no longer; what a worker that is gone sent may arrive until then. */
const longestRequestSeconds = requestTimeoutMs / 1_000 + 1;

/**
 * Jobs that nobody has under way any more go back into the line; what they sent is kept with them. A request of it may
 * still be under way: what it creates or changes is not sent again before the longest request is over. An end is
 * repeated at once, and a creation where its key is honoured.
 * @param lost as they were read; one that was taken again since stays
 */
export async function reclaimJobs(
  lost: readonly Pick<Running, 'id' | 'lease'>[],
  honoursKey: boolean,
): Promise<number> {
  if (lost.length === 0) return 0;
  const over = sql`utc_timestamp(3) + interval ${sql.raw(String(longestRequestSeconds))} second`;
  const kind = sql`coalesce(json_value(${job.request}, '$.kind'), '')`;
  const waits = honoursKey ? sql`${kind} = 'update'` : sql`${kind} in ('create', 'update')`;
  const [result] = await database()
    .update(job)
    .set({
      state: 'waiting',
      dueAt: sql`if(${waits}, ${over}, utc_timestamp(3))`,
      request: sql`if(${kind} = 'create', json_set(${job.request}, '$.openSince', date_format(${over}, '%Y-%m-%dT%H:%i:%s.000Z')), ${job.request})`,
      leaseOwner: null,
    })
    .where(
      and(eq(job.state, 'running'), or(...lost.map(({ id, lease }) => and(eq(job.id, id), eq(job.lease, lease))))),
    );
  return result.affectedRows;
}

const presentSeconds = 6;
/** So often, in milliseconds, those that have long been gone are struck from the list. */
const strikeMs = 30_000;
let struckAt = 0;

/** Says that this worker is there, and how many are. */
export async function bePresent(worker: string): Promise<number> {
  const db = database();
  await db.execute(
    sql`insert into worker_presence (name, seen_at) values (${worker}, utc_timestamp(3)) on duplicate key update seen_at = utc_timestamp(3)`,
  );
  if (Date.now() - struckAt > strikeMs) {
    struckAt = Date.now();
    await db.execute(sql`delete from worker_presence where seen_at < utc_timestamp(3) - interval 1 minute`);
  }
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

/** Whether urgent jobs, other jobs, and events of an account are due. */
export type Due = { urgent: boolean; others: boolean; events: boolean };
export const nothingDue: Due = { urgent: false, others: false, events: false };

/**
 * One look for all accounts: where nothing is due nothing else is asked.
 * @param others also for what can wait; what cannot is looked for more often
 */
export async function whatIsDue(others: boolean): Promise<Map<number, Due>> {
  const waits = sql`j.account_id = a.id and j.state = 'waiting' and j.due_at <= utc_timestamp(3)`;
  const rows = rowsOf<{ id: number; urgent: number; others: number; events: number }>(
    await database().execute(sql`select a.id,
      exists(select 1 from job j where ${waits} and j.priority <= ${priorities.quantity}) as urgent,
      ${others ? sql`exists(select 1 from job j where ${waits} and j.priority > ${priorities.quantity})` : sql`0`} as others,
      exists(select 1 from inbox i where i.account_id = a.id and i.state = 'waiting' and i.due_at <= utc_timestamp(3)) as events
      from account a having urgent or others or events`),
  );
  return new Map(
    rows.map((row) => [
      row.id,
      { urgent: Boolean(row.urgent), others: Boolean(row.others), events: Boolean(row.events) },
    ]),
  );
}
