import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import pino from 'pino';
import { closeDatabase, database } from '../db/client';
import { account } from '../db/schema';
import { type AccountRow, loadAccounts } from '../services/account-context';
import { sessionFor } from '../services/market-session';
import { claimJobs } from './claim';
import { workInbox } from './inbox';
import { reclaimJobs, releaseLanes, takeLane } from './lanes';
import { pollOrders } from './poll';
import { runJob } from './send';

const worker = `worker-${randomUUID()}`;
const log = pino({ name: 'worker' });
const concurrency = 6;
const tickMs = 120;
const heartbeatMs = 2_000;

type LaneState = { running: Map<number, Promise<void>>; lastHeartbeat: number };
const lanes = new Map<number, LaneState>();
let stopping = false;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Starts what is due on one account, as many at a time as its lane bears. Never waits for the jobs themselves. */
async function tend(row: AccountRow): Promise<void> {
  const lane = lanes.get(row.id) ?? { running: new Map(), lastHeartbeat: 0 };
  if (Date.now() - lane.lastHeartbeat > heartbeatMs) {
    if (!(await takeLane(row.id, worker))) {
      lanes.delete(row.id);
      return;
    }
    lane.lastHeartbeat = Date.now();
    lanes.set(row.id, lane);
    const back = await reclaimJobs(row.id, worker, [...lane.running.keys()]);
    if (back) log.info({ account: row.name, back }, 'jobs taken over');
    void pollOrders(row, log);
  }
  const free = concurrency - lane.running.size;
  if (free <= 0 || row.state !== 'connected' || (row.lockedUntil && row.lockedUntil.getTime() > Date.now())) return;
  const jobs = await claimJobs(row.id, worker, free, false);
  if (jobs.length === 0) return;
  const [loaded] = await loadAccounts(database(), [row.id]);
  if (!loaded) return;
  const session = sessionFor(loaded.row, loaded.compiled.rules.pacing.perMinute * 0.98);
  for (const job of jobs) {
    const work = runJob({ account: loaded, session, worker }, job)
      .catch((error: unknown) =>
        log.error({ job: job.id, error: error instanceof Error ? error.stack : String(error) }, 'job interrupted'),
      )
      .finally(() => lane.running.delete(job.id));
    lane.running.set(job.id, work);
  }
}

async function clearOldLocks(): Promise<void> {
  await database()
    .update(account)
    .set({ lockedUntil: null, lastError: null })
    .where(and(eq(account.state, 'connected'), sql`${account.lockedUntil} < utc_timestamp(3)`));
}

async function inboxLoop(): Promise<void> {
  while (!stopping) {
    const worked = await workInbox(log).catch((error: unknown) => {
      log.error({ error: String(error) }, 'inbox');
      return 0;
    });
    if (worked === 0) await pause(tickMs);
  }
}

async function laneLoop(): Promise<void> {
  let lastClear = 0;
  while (!stopping) {
    try {
      const accounts = await database().select().from(account);
      await Promise.all(accounts.map((row) => tend(row)));
      if (Date.now() - lastClear > 5_000) {
        lastClear = Date.now();
        await clearOldLocks();
      }
    } catch (error) {
      log.error({ error: String(error) }, 'lanes');
      await pause(500);
    }
    await pause(tickMs);
  }
}

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  const under = [...lanes.values()].flatMap((lane) => [...lane.running.values()]);
  await Promise.race([Promise.allSettled(under), pause(8_000)]);
  await releaseLanes(worker).catch(() => undefined);
  await closeDatabase();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());

log.info({ worker }, 'ready');
await Promise.all([laneLoop(), inboxLoop()]);
