import { eq } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import { refreshListings } from '../../services/records/listings/refresh-listings';
import { listAgainIfCancelled } from '../../services/stock/list-again-if-cancelled';
import type { JobRow } from '../claim';
import { close, told } from './close';

/** They do not have it live any more: that is stored, and the job ends without having changed anything. */
export async function finishGone(
  row: JobRow,
  worker: string,
  itemId: number,
  remote: 'off' | 'ended' | 'sold' | 'refused' | 'gone',
): Promise<void> {
  const why = remote === 'sold' ? 'It was sold there meanwhile' : 'It is not live there any more';
  await transaction(async (tx) => {
    if (!(await close(tx, row, worker, { state: 'done', outcome: 'nothing', message: why, story: told(row, why) })))
      return;
    await tx.update(listing).set({ remote, seenAt: new Date() }).where(eq(listing.id, row.listingId));
    await refreshListings(tx, [itemId]);
    await listAgainIfCancelled(tx, itemId, row.listingId, row.createdAt);
  });
}
