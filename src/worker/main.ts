import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import pino from 'pino';
import { closeDatabase, database } from '../db/client';
import { type AccountRow, account } from '../db/schema';
import { Lanes } from './lane';
import { releaseLanes, whatIsDue } from './lanes';

const worker = `worker-${randomUUID()}`;
const log = pino({ name: 'worker' });
/** What is urgent is looked for so often, in milliseconds; what can wait every few looks. */
const tickMs = 145;
const othersEvery = 2;
/** As long as nothing is due; else they are read at every look. */
const accountsMs = 2_000;
const clearMs = 10_000;
let stopping = false;

let awake: (() => void) | null = null;
let isWoken = false;
/** Something may be due right now: the pause is over. */
function wake(): void {
  isWoken = true;
  awake?.();
}
async function pause(ms: number): Promise<void> {
  if (!isWoken)
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, ms);
      awake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  awake = null;
  isWoken = false;
}

const lanes = new Lanes(worker, log, wake);

async function clearOldLocks(): Promise<void> {
  await database()
    .update(account)
    .set({ lockedUntil: null, lastError: null })
    .where(and(eq(account.state, 'connected'), sql`${account.lockedUntil} < utc_timestamp(3)`));
}

async function laneLoop(): Promise<void> {
  let lastClear = 0;
  let accounts: AccountRow[] = [];
  let readAt = 0;
  let isBusy = true;
  for (let tick = 0; !stopping; tick++) {
    try {
      const due = await whatIsDue(isBusy || tick % othersEvery === 0);
      isBusy = due.size > 0;
      if (isBusy || Date.now() - readAt > accountsMs) {
        accounts = await database().select().from(account);
        readAt = Date.now();
      }
      await lanes.keep(accounts);
      lanes.tend(accounts, due);
      if (Date.now() - lastClear > clearMs) {
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

const longest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  // What is not answered by then stays marked as under way; whoever takes it over knows that it may still arrive.
  await Promise.race([Promise.allSettled(lanes.running), longest(8_000)]);
  await releaseLanes(worker).catch(() => undefined);
  await closeDatabase();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());

log.info({ worker }, 'ready');
await laneLoop();
