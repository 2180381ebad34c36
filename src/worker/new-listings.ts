import { and, eq, inArray, sql } from 'drizzle-orm';
import { fullPace, paceOn, theirDayBegan, theirTomorrow, waitForNew } from '../core/sync';
import { database } from '../db/client';
import { rowsOf } from '../db/rows';
import { job } from '../db/schema';
import { clockOf } from '../services/records/accounts/clock-of';
import type { LoadedAccount } from '../services/records/accounts/load-accounts';

/**
 * Which jobs of an account are making a new listing at the moment, or have tried and do not know yet. They count
 * towards the daily number as if they had been made: a marketplace may have them already.
 */
const making = new Map<number, Set<number>>();
const queues = new Map<number, Promise<unknown>>();

async function makingOn(accountId: number): Promise<Set<number>> {
  const known = making.get(accountId);
  if (known) return known;
  const open = await database()
    .select({ id: job.id })
    .from(job)
    .where(
      and(
        eq(job.accountId, accountId),
        inArray(job.state, ['waiting', 'running']),
        sql`${job.idempotencyKey} is not null and json_value(${job.request}, '$.kind') = 'create'`,
      ),
    );
  const found = new Set(open.map((row) => row.id));
  making.set(accountId, found);
  return found;
}

/** One after the other per account, so that two that look at the same time do not both take the last place of the day. */
function inTurn<T>(accountId: number, work: () => Promise<T>): Promise<T> {
  const turn = (queues.get(accountId) ?? Promise.resolve()).then(work, work);
  queues.set(
    accountId,
    turn.catch(() => undefined),
  );
  return turn;
}

export type Pause = { ms: number; why: string };

async function pauseFor({ row, compiled }: LoadedAccount, under: number): Promise<Pause | null> {
  const now = new Date();
  const clock = clockOf(row);
  const { rules } = compiled;
  if (row.warnedUntil && row.warnedUntil > now)
    return { ms: row.warnedUntil.getTime() - now.getTime(), why: `${rules.name} warned of too many new listings` };
  const [made] = rowsOf<{ count: number; last: string | null }>(
    await database().execute(
      sql`select count(*) as count, date_format(max(live_since), '%Y-%m-%dT%H:%i:%s.%fZ') as last from listing where account_id = ${row.id} and live_since >= ${theirDayBegan(clock, now)}`,
    ),
  );
  const pace = paceOn(rules.pacing, row.ownPace ?? fullPace, now);
  const today = Number(made?.count ?? 0) + under;
  // One that is being made counts as made just now.
  const last = under > 0 ? now : made?.last ? new Date(made.last) : null;
  const ms = waitForNew(pace, { today, last }, now, theirTomorrow(clock, now));
  if (ms === 0) return null;
  const isFull = today >= pace.newToday;
  return {
    ms,
    why: isFull ? `${pace.newToday} new listings a day are reached` : 'New listings are spread over the day',
  };
}

/**
 * Takes one of the day's places for a new listing.
 * @returns how long it has to wait instead, and why; null when the place is taken
 */
export function takePlace(account: LoadedAccount, jobId: number): Promise<Pause | null> {
  return inTurn(account.row.id, async () => {
    const under = await makingOn(account.row.id);
    if (under.has(jobId)) return null;
    const pause = await pauseFor(account, under.size);
    if (!pause) under.add(jobId);
    return pause;
  });
}

/** Another worker may have gone on with them since: what is known is read again. */
export const forgetPlaces = (accountId: number): boolean => making.delete(accountId);

/** It was made (and is counted as such now), or it is certain that it was not. */
export function givePlace(accountId: number, jobId: number): void {
  making.get(accountId)?.delete(jobId);
}
