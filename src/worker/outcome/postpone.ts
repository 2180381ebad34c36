import { eq } from 'drizzle-orm';
import type { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { job, listing } from '../../db/schema';
import type { JobRow } from '../claim';
import { hold, isOwn, told } from './close';

/**
 * Tried again later; what was sent stays with the job, so that the repeat is the same. A more urgent change that joined
 * meanwhile does not wait for a pause that was another's, unless the marketplace itself asked for it.
 * @param alarm says on screen that it does not get through, though it is tried on
 */
export async function postpone(
  row: JobRow,
  worker: string,
  milliseconds: number,
  error: Pick<NettingError, 'code' | 'message' | 'facts'>,
  { countsAsAttempt, alarm = false }: { countsAsAttempt: boolean; alarm?: boolean },
): Promise<void> {
  await transaction(async (tx) => {
    const now = await hold(tx, row);
    if (!isOwn(now, row, worker)) return;
    const isPassed = countsAsAttempt && error.facts.retryAfterMs === undefined && now.priority < row.priority;
    const pause = isPassed ? 0 : milliseconds;
    await tx
      .update(job)
      .set({
        state: 'waiting',
        leaseOwner: null,
        // What was sent stays, with what has been found out of it.
        request: row.request,
        attempts: isPassed ? 0 : countsAsAttempt ? row.attempts : Math.max(0, row.attempts - 1),
        dueAt: new Date(Date.now() + pause),
        errorCode: error.code,
        message: error.message.slice(0, 500),
        fix: error.facts.fix?.slice(0, 300) ?? null,
        story: told(row, `${error.message}; next try in ${Math.max(1, Math.round(pause / 1000))} s`),
      })
      .where(eq(job.id, row.id));
    if (alarm) await tx.update(listing).set({ problem: true }).where(eq(listing.id, row.listingId));
  });
}
