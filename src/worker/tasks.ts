import { randomUUID } from 'node:crypto';
import pino from 'pino';
import { closeDatabase } from '../db/client';
import { auditAndKeep } from '../services/audit/audit';
import { followDue } from '../services/consignments/follow-shipment';
import { tellDispatches } from '../services/consignments/tell-dispatches';
import { keepUp } from '../services/insights/keep-up';
import { lookUpDue } from '../services/intake/look-up-lines';
import { printWaiting } from '../services/labels/print-waiting';
import { planDailyRenewals } from '../services/listings/renewal/plan-daily-renewals';
import { planRoutines } from '../services/routines/plan-routines';
import { makeSummary } from '../services/summaries/make-summary';
import { sendSummaries } from '../services/summaries/send-summaries';
import { runTask } from '../services/tasks/run-task';
import { thinOld } from '../services/tasks/thin-old';

/**
 * Long work, in a process of its own: what is computed for a hundred thousand items must not keep the one waiting that
 * ends listings.
 */
const holder = `tasks-${randomUUID()}`;
const log = pino({ name: 'tasks' });
const taskMs = 500;
const dailyMs = 30_000;
const auditMs = 600_000;
const thinMs = 3_600_000;
const allMs = 86_400_000;
let stopping = false;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Long work, one task after the other, and what was asked for at a time. */
async function taskLoop(): Promise<void> {
  while (!stopping) {
    const found = await runTask(holder, log, () => stopping).catch((error: unknown) => {
      log.error({ error: String(error) }, 'tasks');
      return false;
    });
    if (!found) await pause(taskMs);
  }
}

/** What repeats by itself. */
async function dailyLoop(): Promise<void> {
  let auditedAt = 0;
  let thinnedAt = 0;
  let allReadAt = Date.now();
  while (!stopping) {
    const planned = await planDailyRenewals(new Date()).catch((error: unknown) => {
      log.error({ error: String(error) }, 'daily renewals');
      return 0;
    });
    if (planned) log.info({ planned }, 'daily renewals');
    await planRoutines(new Date()).catch((error: unknown) => log.error({ error: String(error) }, 'routines'));
    // What a process that took a scan could not look up any more.
    await printWaiting().catch((error: unknown) => log.error({ error: String(error) }, 'labels'));
    // What a warehouse sends for another account.
    await tellDispatches().catch((error: unknown) => log.error({ error: String(error) }, 'dispatches'));
    // What is on its way to a warehouse: has it arrived?
    await followDue().catch((error: unknown) => log.error({ error: String(error) }, 'consignments'));
    // What is looked back at is read along, so that nobody waits for it.
    const isAllDue = Date.now() - allReadAt > allMs;
    await keepUp(10_000, isAllDue)
      .then((isWhole) => {
        if (isWhole && isAllDue) allReadAt = Date.now();
      })
      .catch((error: unknown) => log.error({ error: String(error) }, 'insights'));
    // What needs a person, told once a day.
    await makeSummary(new Date())
      .then(() => sendSummaries(new Date()))
      .catch((error: unknown) => log.error({ error: String(error) }, 'summaries'));
    await lookUpDue().catch((error: unknown) => log.error({ error: String(error) }, 'scans'));
    if (Date.now() - thinnedAt > thinMs) {
      thinnedAt = Date.now();
      await thinOld(new Date(), () => stopping)
        .then((thinned) => {
          if (Object.values(thinned).some((count) => count > 0)) log.info(thinned, 'old things went');
        })
        .catch((error: unknown) => log.error({ error: String(error) }, 'old things'));
    }
    if (Date.now() - auditedAt > auditMs) {
      auditedAt = Date.now();
      const { found } = await auditAndKeep().catch((error: unknown) => {
        log.error({ error: String(error) }, 'audit');
        return { found: [] };
      });
      if (found.length) log.warn({ found: found.map(({ id, count, mended }) => ({ id, count, mended })) }, 'audit');
    }
    for (let waited = 0; waited < dailyMs && !stopping; waited += taskMs) await pause(taskMs);
  }
}

const loops = Promise.all([taskLoop(), dailyLoop()]);

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await Promise.race([loops, pause(8_000)]);
  await closeDatabase();
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());

log.info({ holder }, 'ready');
await loops;
