import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { alarmAfter, priorities } from '../../core/sync';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { unheardAccounts } from '../records/listings/unheard-accounts';
import { runningTasks } from '../records/tasks/running-tasks';
import { linesCount } from './lines-now';

export const laneProgressSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  /** Without what does not get through and is tried on: that needs a person, and is told so. */
  waiting: z.number(),
  running: z.number(),
  /** Stopped by a person: of a run, or the whole account. */
  held: z.number(),
  paused: z.boolean(),
  /** Brought back from a backup and not yet compared: nothing is sent before. */
  comparing: z.boolean(),
  /** They do not answer, since when. */
  unwellSince: z.string().nullable(),
  /** Their orders have not been heard for longer than they should, since when. */
  unheardSince: z.string().nullable(),
  /** They warned of too many new listings. */
  warnedUntil: z.string().nullable(),
  doneLastMinute: z.number(),
  secondsLeft: z.number().nullable(),
  lockedUntil: z.string().nullable(),
  lastError: z.string().nullable(),
});
export type LaneProgress = z.infer<typeof laneProgressSchema>;

export const sendingProgressSchema = z.object({
  lanes: z.array(laneProgressSchema),
  failed: z.number(),
  /** Causes that wait for a person, a line each, as of some seconds ago. */
  lines: z.number(),
  oversold: z.number(),
  /** Orders that fit no item. */
  unassigned: z.number(),
  /** Routines that did not do what they were to do, or were only tried. */
  routines: z.number(),
  workerAlive: z.boolean(),
  /** Long work that is under way. */
  tasks: z.array(
    z.object({
      id: z.number(),
      title: z.string(),
      done: z.number(),
      total: z.number(),
      secondsLeft: z.number().nullable(),
    }),
  ),
});
export type SendingProgress = z.infer<typeof sendingProgressSchema>;

/** What the dock shows: per account what waits, what runs, how fast it goes and how long still. */
export async function progress(): Promise<SendingProgress> {
  const db = database();
  const rows = rowsOf<{
    accountId: number;
    name: string;
    waiting: number;
    running: number;
    held: number;
    paused: number;
    comparing: number;
    unwellSince: string | null;
    warnedUntil: string | null;
    doneLastMinute: number;
    lockedUntil: string | null;
    lastError: string | null;
  }>(
    await db.execute(sql`select a.id as accountId, a.name,
      (select count(*) from job j where j.account_id = a.id and j.state = 'waiting') - (select count(*) from job j where j.account_id = a.id and j.state = 'waiting' and j.priority <= ${priorities.quantity} and j.due_at > utc_timestamp(3) and (j.attempts >= ${alarmAfter} or j.error_code = 'market-blocked')) as waiting,
      (select count(*) from job j where j.account_id = a.id and j.state = 'running') as running,
      (select count(*) from job j where j.account_id = a.id and j.state = 'held') as held, a.paused_at is not null as paused, a.restored_at is not null as comparing,
      date_format(a.unwell_since, '%Y-%m-%dT%H:%i:%sZ') as unwellSince, if(a.warned_until > utc_timestamp(3), date_format(a.warned_until, '%Y-%m-%dT%H:%i:%sZ'), null) as warnedUntil,
      (select count(*) from job j where j.account_id = a.id and j.state = 'done' and j.finished_at > utc_timestamp(3) - interval 60 second) as doneLastMinute,
      if(a.locked_until > utc_timestamp(3), date_format(a.locked_until, '%Y-%m-%dT%H:%i:%sZ'), null) as lockedUntil, a.last_error as lastError
      from account a order by a.id`),
  );
  const [state] = rowsOf<{ failed: number; oversold: number; unassigned: number; routines: number; alive: number }>(
    await db.execute(
      sql`select (select count(*) from listing where state = 'attention') as failed, (select count(*) from sale where oversold = 1) as oversold, (select count(*) from sale where unassigned = 1) as unassigned, (select count(*) from routine where needs_look = 1) as routines, (select count(*) from account where lane_until > utc_timestamp(3) - interval 10 second) as alive`,
    ),
  );
  const now = new Date();
  const unheard = new Map((await unheardAccounts(now)).map((one) => [one.id, one.since]));
  return {
    lanes: rows.map((row) => ({
      ...row,
      unheardSince: unheard.get(row.accountId)?.toISOString() ?? null,
      paused: Boolean(row.paused),
      comparing: Boolean(row.comparing),
      secondsLeft:
        row.waiting + row.running === 0
          ? 0
          : row.doneLastMinute
            ? Math.ceil(((row.waiting + row.running) * 60) / row.doneLastMinute)
            : null,
    })),
    failed: state?.failed ?? 0,
    lines: linesCount(),
    oversold: state?.oversold ?? 0,
    unassigned: state?.unassigned ?? 0,
    routines: state?.routines ?? 0,
    workerAlive: (state?.alive ?? 0) > 0 || rows.length === 0,
    tasks: await runningTasks(db),
  };
}
