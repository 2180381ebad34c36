import { and, eq, sql } from 'drizzle-orm';
import { priorities } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { listing } from '../../db/schema';
import { enqueueJobs } from '../records/listings/enqueue-jobs';

/** Has a listing that may stand there looked at by a job, which takes over what it finds. */
export const queueLook = (listingId: number): Promise<number> =>
  transaction((tx) =>
    enqueueJobs(tx, {
      where: sql`l.id = ${listingId} and l.remote = 'maybe'`,
      // What is not to be on offer any more is as urgent as an end.
      priority: sql`if(l.wanted = 'ended' or l.wanted_quantity < 1, ${priorities.end}, ${priorities.create})`,
      runId: null,
    }),
  );

/** It is certain that it was not made; nothing else has been sent since. */
export async function noteNotMade(listingId: number): Promise<void> {
  await database()
    .update(listing)
    .set({ remote: 'none' })
    .where(and(eq(listing.id, listingId), eq(listing.remote, 'maybe'), eq(listing.busy, false)));
}
