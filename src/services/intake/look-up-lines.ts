import { and, asc, eq, inArray, isNotNull, lte } from 'drizzle-orm';
import { database } from '../../db/client';
import { batchLine } from '../../db/schema';
import { lookUpLine } from './look-up-line';

/** Lines that are looked up side by side in one process, besides those whose piece is in somebody's hand. */
const beside = 4;
/** Whoever looks a line up has so long, in milliseconds; then somebody else may. */
const leaseMs = 60_000;

const waiting: number[] = [];
let under = 0;

/** Looks up lines whose pieces are in somebody's hand right now; what a process leaves undone is taken up by `lookUpDue`. */
export function lookUpNow(ids: readonly number[]): void {
  // The line stays due when it fails: it is looked up again when its lease is over.
  for (const id of ids) void lookUpOnce(id, true).catch(() => undefined);
}

/** The same of lines that were kept while there was no connection: a few at a time, behind those that come in now. */
export function lookUpSoon(ids: readonly number[]): void {
  waiting.push(...ids.filter((id) => !waiting.includes(id)));
  while (under < beside && waiting.length) {
    const id = waiting.shift();
    if (id === undefined) return;
    under++;
    void lookUpOnce(id, false)
      .catch(() => undefined)
      .finally(() => {
        under--;
        lookUpSoon([]);
      });
  }
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

/** Looks up what is due and was left, such as by a process that was killed. Returns how many lines. */
export async function lookUpDue(most = 200): Promise<number> {
  const rows = await database()
    .select({ id: batchLine.id })
    .from(batchLine)
    .where(and(isNotNull(batchLine.lookAt), lte(batchLine.lookAt, new Date()), inArray(batchLine.isUndone, [false])))
    .orderBy(asc(batchLine.id))
    .limit(most);
  for (const { id } of rows) await lookUpOnce(id, false);
  return rows.length;
}
