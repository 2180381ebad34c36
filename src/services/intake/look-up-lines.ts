import { and, asc, eq, lte } from 'drizzle-orm';
import { database } from '../../db/client';
import { batchLine } from '../../db/schema';
import { lookUpLine } from './look-up-line';

/** Whoever looks a line up has so long, in milliseconds; then somebody else may. */
const leaseMs = 60_000;

/** Between two lines that nobody holds any more, in milliseconds: those that come in now go before. */
const restMs = 150;
/** The next one does not wait longer for the one before. */
const longestMs = 400;
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** As long as pieces come in one after the other they wait, but not longer than so many milliseconds a line. */
const quietMs = 800;
const mostWaitMs = 1_500;
let heldAt = 0;

const waiting: number[] = [];
let isUnder = false;

/** Looks up lines whose pieces are in somebody's hand right now; what a process leaves undone is taken up by `lookUpDue`. */
export function lookUpNow(ids: readonly number[]): void {
  // The line stays due when it fails: it is looked up again when its lease is over.
  if (ids.length) heldAt = Date.now();
  for (const id of ids) void lookUpOnce(id, true).catch(() => undefined);
}

/** The same of lines that were kept while there was no connection: one after the other, behind those that come in now. */
export function lookUpSoon(ids: readonly number[]): void {
  // Behind what was kept more may come.
  if (ids.length) heldAt = Date.now();
  waiting.push(...ids.filter((id) => !waiting.includes(id)));
  if (isUnder || waiting.length === 0) return;
  isUnder = true;
  void (async () => {
    for (let id = waiting.shift(); id !== undefined; id = waiting.shift()) {
      await quiet();
      const one = lookUpOnce(id, false).catch(() => undefined);
      await Promise.race([one, rest(longestMs)]);
      await rest(restMs);
    }
    isUnder = false;
  })();
}

/** Nobody has had a piece in the hand for a moment. */
async function quiet(): Promise<void> {
  const until = Date.now() + mostWaitMs;
  while (Date.now() - heldAt < quietMs && Date.now() < until) await rest(restMs);
}

/** One at a time looks a line up. */
async function lookUpOnce(id: number, urgent: boolean): Promise<void> {
  const now = new Date();
  const [{ affectedRows }] = await database()
    .update(batchLine)
    .set({ lookAt: new Date(now.getTime() + leaseMs) })
    .where(and(eq(batchLine.id, id), lte(batchLine.lookAt, now)));
  if (affectedRows === 1) await lookUpLine(id, urgent);
}

const mostLeft = 200;

/** Queues what is due and was left, such as by a process that was killed; whoever calls does not wait for it. */
export async function lookUpDue(): Promise<void> {
  const rows = await database()
    .select({ id: batchLine.id })
    .from(batchLine)
    .where(lte(batchLine.lookAt, new Date()))
    .orderBy(asc(batchLine.id))
    .limit(mostLeft);
  lookUpSoon(rows.map((row) => row.id));
}
