import { eq, sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import { refreshListings } from '../../services/records/listings/refresh-listings';
import type { JobRow } from '../claim';
import { close, told } from './close';

/**
 * There was nothing to do.
 * @param unwanted it was to be made and is not any more: a draft again, unless a change joined meanwhile
 */
export async function finishNothing(
  row: JobRow,
  worker: string,
  itemId: number,
  why: string,
  unwanted = false,
): Promise<void> {
  await transaction(async (tx) => {
    if (!(await close(tx, row, worker, { state: 'done', outcome: 'nothing', message: why, story: told(row, why) })))
      return;
    await tx
      .update(listing)
      // Nothing is done only when nothing is open: a creation that was never answered has been looked for.
      .set({
        remote: sql`if(remote = 'maybe', 'none', remote)`,
        ...(unwanted ? { wanted: sql`if(wanted = 'live' and busy = 0, 'draft', wanted)` } : {}),
      })
      .where(eq(listing.id, row.listingId));
    await refreshListings(tx, [itemId]);
  });
}
