import { eq } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { job, listing, previousRemoteId } from '../../db/schema';
import { LostLease } from '../../markets';
import type { JobRow } from '../claim';
import { isHeld } from '../held';
import { told } from './close';

/** The first half of a renewal: it is ended there, its number is kept in the history, and it can be made anew. */
export async function storeEnded(row: JobRow, worker: string, why: 'renewed' | 'made-again'): Promise<void> {
  await transaction(async (tx) => {
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId)).for('update');
    if (!before?.remoteId) return;
    await tx.insert(previousRemoteId).values({
      listingId: before.id,
      accountId: before.accountId,
      remoteId: before.remoteId,
      remoteUrl: before.remoteUrl,
      liveSince: before.liveSince,
      why,
      at: new Date(),
    });
    await tx
      .update(listing)
      .set({ remote: 'none', remoteId: null, remoteUrl: null, sentQuantity: 0, offersOpen: 0, renewsAt: null })
      .where(eq(listing.id, row.listingId));
    row.story = told(row, `They answered: listing ${before.remoteId} ended; it is made anew now`);
    row.request = null;
    const [{ affectedRows }] = await tx
      .update(job)
      .set({ request: null, idempotencyKey: null, story: row.story })
      .where(isHeld(row, worker));
    if (affectedRows !== 1) throw new LostLease();
  });
}
