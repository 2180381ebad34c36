import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { priorities } from '../../core/sync';
import type { Tx } from '../../db/client';
import { account, listing } from '../../db/schema';
import { enqueueJobs } from '../records/listings/enqueue-jobs';
import { forgetRemoteIds } from '../records/listings/forget-remote-ids';
import { refreshListings } from '../records/listings/refresh-listings';

/**
 * Listings of an item that ended because there was nothing left are made again, where their account wants that.
 * @param only just this listing
 */
export async function listAgain(tx: Tx, itemId: number, only?: number): Promise<number> {
  const rows = await tx
    .select({ id: listing.id })
    .from(listing)
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(
      and(
        eq(listing.itemId, itemId),
        only === undefined ? undefined : eq(listing.id, only),
        eq(listing.wanted, 'live'),
        inArray(listing.remote, ['off', 'ended', 'sold']),
        gt(listing.wantedQuantity, 0),
        eq(account.relistCancelled, true),
      ),
    );
  if (rows.length === 0) return 0;
  const ids = rows.map((row) => row.id);
  await forgetRemoteIds(tx, sql`l.id in ${ids}`);
  await refreshListings(tx, [itemId]);
  await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId: null });
  return ids.length;
}
