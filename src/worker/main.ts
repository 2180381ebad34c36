import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import pino from 'pino';
import { closeDatabase, database } from '../db/client';
import { account } from '../db/schema';
import { planDailyRenewals } from '../services/listings/plan-daily-renewals';
import { forgetTasks } from '../services/tasks/forget-tasks';
import { runTask } from '../services/tasks/run-task';
import { Lanes } from './lane';
import { releaseLanes } from './lanes';

const worker = `worker-${randomUUID()}`;
const log = pino({ name: 'worker' });
const tickMs = 120;
const taskMs = 500;
const dailyMs = 30_000;
const lanes = new Lanes(worker, log);
let stopping = false;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function clearOldLocks(): Promise<void> {
  await database()
    .update(account)
    .set({ lockedUntil: null, lastError: null })
    .where(and(eq(account.state, 'connected'), sql`${account.lockedUntil} < utc_timestamp(3)`));
}

async function laneLoop(): Promise<void> {
  let lastClear = 0;
  while (!stopping) {
    try {
      const accounts = await database().select().from(account);
      await lanes.balance(accounts);
      await Promise.all(accounts.map((row) => lanes.tend(row)));
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

/** Long work, one task after the other, and what was asked for at a time. */
async function taskLoop(): Promise<void> {
  while (!stopping) {
    const found = await runTask(worker, log, () => stopping).catch((error: unknown) => {
      log.error({ error: String(error) }, 'tasks');
      return false;
    });
    if (!found) await pause(taskMs);
  }
}

/** What repeats by itself. */
async function dailyLoop(): Promise<void> {
  while (!stopping) {
    const planned = await planDailyRenewals(new Date()).catch((error: unknown) => {
      log.error({ error: String(error) }, 'daily renewals');
      return 0;
    });
    if (planned) log.info({ planned }, 'daily renewals');
    await forgetTasks(new Date()).catch((error: unknown) => log.error({ error: String(error) }, 'old tasks'));
    for (let waited = 0; waited < dailyMs && !stopping; waited += taskMs) await pause(taskMs);
  }
}

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await Promise.race([Promise.allSettled(lanes.running), pause(8_000)]);
  await releaseLanes(worker).catch(() => undefined);
  await closeDatabase();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());

log.info({ worker }, 'ready');
await Promise.all([laneLoop(), taskLoop(), dailyLoop()]);
