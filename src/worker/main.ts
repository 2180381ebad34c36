import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import pino from 'pino';
import { closeDatabase, database } from '../db/client';
import { account } from '../db/schema';
import { Lanes } from './lane';
import { nothingDue, releaseLanes, whatIsDue } from './lanes';

const worker = `worker-${randomUUID()}`;
const log = pino({ name: 'worker' });
const tickMs = 120;
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
      const due = await whatIsDue();
      await Promise.all(accounts.map((row) => lanes.tend(row, due.get(row.id) ?? nothingDue)));
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
  await Promise.race([Promise.allSettled(lanes.running), pause(8_000)]);
  await releaseLanes(worker).catch(() => undefined);
  await closeDatabase();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());

log.info({ worker }, 'ready');
await laneLoop();
