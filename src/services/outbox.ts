import { and, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { account, item, job, listing, run } from '../db/schema';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { rowsOf } from './find-items';

export const jobStates = ['waiting', 'held', 'running', 'done', 'failed', 'skipped'] as const;
export const findJobsSchema = z.object({
  state: z.enum(jobStates).optional(),
  run: z.coerce.number().int().optional(),
  item: z.coerce.number().int().optional(),
  account: z.coerce.number().int().optional(),
  before: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export type OutboxJob = {
  id: number;
  listingId: number;
  itemId: number;
  sku: string;
  title: string;
  photo: string | null;
  accountId: number;
  accountName: string;
  runId: number | null;
  state: (typeof jobStates)[number];
  outcome: string | null;
  attempts: number;
  dueAt: string;
  errorCode: string | null;
  message: string | null;
  mend: string | null;
  field: string | null;
  url: string | null;
  remoteId: string | null;
  story: { at: string; text: string }[];
  createdAt: string;
  finishedAt: string | null;
};

/** Jobs, newest first: what is planned, under way, done and failed, with the reason in plain words. */
export async function findJobs(
  input: z.infer<typeof findJobsSchema>,
): Promise<{ jobs: OutboxJob[]; next: number | null }> {
  const rows = await database()
    .select({
      job,
      itemId: listing.itemId,
      url: listing.remoteUrl,
      remoteId: listing.remoteId,
      sku: item.sku,
      title: item.title,
      photo: item.mainPhoto,
      accountName: account.name,
    })
    .from(job)
    .innerJoin(listing, eq(listing.id, job.listingId))
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, job.accountId))
    .where(
      and(
        input.state ? eq(job.state, input.state) : undefined,
        input.run ? eq(job.runId, input.run) : undefined,
        input.item ? eq(listing.itemId, input.item) : undefined,
        input.account ? eq(job.accountId, input.account) : undefined,
        input.before ? lt(job.id, input.before) : undefined,
      ),
    )
    .orderBy(desc(job.id))
    .limit(input.limit + 1);
  const jobs = rows.slice(0, input.limit).map(
    ({ job: one, ...rest }): OutboxJob => ({
      id: one.id,
      listingId: one.listingId,
      accountId: one.accountId,
      runId: one.runId,
      state: one.state,
      outcome: one.outcome,
      attempts: one.attempts,
      dueAt: one.dueAt.toISOString(),
      errorCode: one.errorCode,
      message: one.message,
      mend: one.mend,
      field: one.field,
      story: one.story ?? [],
      createdAt: one.createdAt.toISOString(),
      finishedAt: one.finishedAt?.toISOString() ?? null,
      ...rest,
    }),
  );
  return { jobs, next: rows.length > input.limit ? (jobs.at(-1)?.id ?? null) : null };
}

export type LaneProgress = {
  accountId: number;
  name: string;
  waiting: number;
  running: number;
  /** Stopped by a person: of a run, or the whole account. */
  held: number;
  paused: boolean;
  /** They do not answer, since when. */
  unwellSince: string | null;
  /** They warned of too many new listings. */
  warnedUntil: string | null;
  doneLastMinute: number;
  secondsLeft: number | null;
  lockedUntil: string | null;
  lastError: string | null;
};

/** What the dock shows: per account what waits, what runs, how fast it goes and how long still. */
export async function progress(): Promise<{
  lanes: LaneProgress[];
  failed: number;
  oversold: number;
  workerAlive: boolean;
}> {
  const db = database();
  const rows = rowsOf<{
    accountId: number;
    name: string;
    waiting: number;
    running: number;
    held: number;
    paused: number;
    unwellSince: string | null;
    warnedUntil: string | null;
    doneLastMinute: number;
    lockedUntil: string | null;
    lastError: string | null;
  }>(
    await db.execute(sql`select a.id as accountId, a.name,
      (select count(*) from job j where j.account_id = a.id and j.state = 'waiting') as waiting,
      (select count(*) from job j where j.account_id = a.id and j.state = 'running') as running,
      (select count(*) from job j where j.account_id = a.id and j.state = 'held') as held, a.paused_at is not null as paused,
      date_format(a.unwell_since, '%Y-%m-%dT%H:%i:%sZ') as unwellSince, if(a.warned_until > utc_timestamp(3), date_format(a.warned_until, '%Y-%m-%dT%H:%i:%sZ'), null) as warnedUntil,
      (select count(*) from job j where j.account_id = a.id and j.state = 'done' and j.finished_at > utc_timestamp(3) - interval 60 second) as doneLastMinute,
      if(a.locked_until > utc_timestamp(3), date_format(a.locked_until, '%Y-%m-%dT%H:%i:%sZ'), null) as lockedUntil, a.last_error as lastError
      from market_account a order by a.id`),
  );
  const [state] = rowsOf<{ failed: number; oversold: number; alive: number }>(
    await db.execute(
      sql`select (select count(*) from listing where state = 'attention') as failed, (select count(*) from sale where oversold = 1) as oversold, (select count(*) from market_account where lane_until > utc_timestamp(3) - interval 10 second) as alive`,
    ),
  );
  return {
    lanes: rows.map((row) => ({
      ...row,
      paused: Boolean(row.paused),
      secondsLeft:
        row.waiting + row.running === 0
          ? 0
          : row.doneLastMinute
            ? Math.ceil(((row.waiting + row.running) * 60) / row.doneLastMinute)
            : null,
    })),
    failed: state?.failed ?? 0,
    oversold: state?.oversold ?? 0,
    workerAlive: (state?.alive ?? 0) > 0 || rows.length === 0,
  };
}

export type RunProgress = {
  id: number;
  kind: string;
  title: string;
  byName: string;
  itemCount: number;
  createdAt: string;
  undoneBy: number | null;
  stopped: boolean;
  held: number;
  waiting: number;
  running: number;
  done: number;
  failed: number;
};

export async function findRuns(limit = 30): Promise<RunProgress[]> {
  const db = database();
  const runs = await db.select().from(run).orderBy(desc(run.id)).limit(limit);
  const ids = runs.map((one) => one.id);
  const counts = ids.length
    ? await db
        .select({ runId: job.runId, state: job.state, count: sql<number>`count(*)` })
        .from(job)
        .where(inArray(job.runId, ids))
        .groupBy(job.runId, job.state)
    : [];
  const countOf = (id: number, state: string) =>
    Number(counts.find((one) => one.runId === id && one.state === state)?.count ?? 0);
  return runs.map((one) => ({
    id: one.id,
    kind: one.kind,
    title: one.title,
    byName: one.byName,
    itemCount: one.itemCount,
    createdAt: one.createdAt.toISOString(),
    undoneBy: one.undoneBy,
    stopped: one.stoppedAt !== null,
    held: countOf(one.id, 'held'),
    waiting: countOf(one.id, 'waiting'),
    running: countOf(one.id, 'running'),
    done: countOf(one.id, 'done'),
    failed: countOf(one.id, 'failed'),
  }));
}

export const retryJobsSchema = z.union([
  z.object({ jobs: z.array(z.number().int()).min(1).max(2_000) }).strict(),
  z
    .object({ account: z.number().int(), message: z.string() })
    .strict()
    .describe('All that failed on this account with this very reason'),
]);

/** Queues failed jobs anew, by number or all of one cause. */
export async function retryJobs(_actor: Actor, input: z.infer<typeof retryJobsSchema>): Promise<{ queued: number }> {
  return transaction(async (tx) => {
    const which =
      'jobs' in input
        ? sql`j.id in ${input.jobs}`
        : sql`j.account_id = ${input.account} and j.message = ${input.message}`;
    const rows = rowsOf<{ listingId: number; priority: number }>(
      await tx.execute(
        sql`select distinct j.listing_id as listingId, j.priority from job j join listing l on l.id = j.listing_id where ${which} and j.state = 'failed' and l.problem = 1`,
      ),
    );
    if (rows.length === 0) throw new NettingError('invalid', 'Nothing of this has failed');
    const queued = await enqueueJobs(tx, {
      where: sql`l.id in ${rows.map((row) => row.listingId)}`,
      priority: priorities.create,
      runId: null,
    });
    return { queued: Math.min(queued, rows.length) };
  });
}

/** Takes waiting jobs out of the outbox; what was sent already stays sent. */
export async function skipJobs(_actor: Actor, jobIds: number[]): Promise<{ skipped: number }> {
  return transaction(async (tx) => {
    const rows = await tx
      .select({ id: job.id, listingId: job.listingId })
      .from(job)
      .where(and(inArray(job.id, jobIds), inArray(job.state, ['waiting', 'held'])))
      .for('update');
    if (rows.length === 0) return { skipped: 0 };
    await tx
      .update(job)
      .set({ state: 'skipped', liveListing: null, finishedAt: new Date(), message: 'Taken out of the outbox' })
      .where(
        inArray(
          job.id,
          rows.map((row) => row.id),
        ),
      );
    await tx
      .update(listing)
      .set({ busy: false })
      .where(
        inArray(
          listing.id,
          rows.map((row) => row.listingId),
        ),
      );
    return { skipped: rows.length };
  });
}

export type Cause = {
  accountId: number;
  accountName: string;
  message: string;
  mend: string | null;
  errorCode: string | null;
  field: string | null;
  count: number;
  items: { id: number; sku: string; title: string }[];
};

/** What needs a person, grouped by cause: each with the one mend for all of them. */
export async function findCauses(): Promise<Cause[]> {
  const rows = await database()
    .select({
      accountId: job.accountId,
      accountName: account.name,
      message: job.message,
      mend: job.mend,
      errorCode: job.errorCode,
      field: job.field,
      itemId: item.id,
      sku: item.sku,
      title: item.title,
    })
    .from(listing)
    .innerJoin(job, sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`)
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(eq(listing.state, 'attention'))
    .limit(5_000);
  const causes = new Map<string, Cause>();
  for (const { itemId, sku, title, ...row } of rows) {
    const key = `${row.accountId}/${row.message}`;
    const cause = causes.get(key) ?? { ...row, message: row.message ?? 'It failed', count: 0, items: [] };
    cause.count++;
    if (cause.items.length < 20) cause.items.push({ id: itemId, sku, title });
    causes.set(key, cause);
  }
  return [...causes.values()].sort((a, b) => b.count - a.count);
}
