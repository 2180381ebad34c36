import { and, inArray } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { job, listing } from '../../db/schema';
import type { Actor } from '../access/actor';

/** Takes waiting jobs out of the outbox; what was sent already stays sent. */
export async function skipJobs(_actor: Actor, jobIds: number[]): Promise<{ skipped: number }> {
  return transaction(async (tx) => {
    const rows = await tx
      .select({ id: job.id, listingId: job.listingId })
      .from(job)
      .where(and(inArray(job.id, jobIds), inArray(job.state, ['waiting', 'held'])))
      .for('update');
    if (rows.length === 0) return { skipped: 0 };
    await tx
      .update(job)
      .set({ state: 'skipped', liveListing: null, finishedAt: new Date(), message: 'Taken out of the outbox' })
      .where(
        inArray(
          job.id,
          rows.map((row) => row.id),
        ),
      );
    await tx
      .update(listing)
      .set({ busy: false })
      .where(
        inArray(
          listing.id,
          rows.map((row) => row.listingId),
        ),
      );
    return { skipped: rows.length };
  });
}
