import { and, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { transaction } from '../../../db/client';
import { listing, previousRemoteId } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { refreshListings } from '../../records/listings/refresh-listings';

/** Cuts links: their listing stays as it is and is looked after no more; here the item counts as not listed there. */
export async function cutLinks(_actor: Actor, listings: number[]): Promise<{ cut: number }> {
  return transaction(async (tx) => {
    const rows = await tx
      .select()
      .from(listing)
      .where(and(inArray(listing.id, listings), sql`${listing.remoteId} is not null`))
      .for('update');
    if (rows.some((row) => row.busy))
      throw new NettingError('conflict', 'A change of one of them is on its way', {
        fix: 'Wait until it is sent, or take it out of the outbox',
      });
    if (rows.length === 0) throw new NettingError('too-late', 'These links are cut already');
    await tx.insert(previousRemoteId).values(
      rows.map((row) => ({
        listingId: row.id,
        accountId: row.accountId,
        remoteId: row.remoteId ?? '',
        remoteUrl: row.remoteUrl,
        liveSince: row.liveSince,
        why: 'cut' as const,
        at: new Date(),
      })),
    );
    await tx
      .update(listing)
      .set({
        remoteId: null,
        remoteUrl: null,
        remote: 'none',
        wanted: 'draft',
        drifted: false,
        problem: false,
        sent: null,
        base: null,
        seen: null,
        sentPrice: null,
        sentQuantity: null,
        liveSince: null,
        renewsAt: null,
      })
      .where(
        inArray(
          listing.id,
          rows.map((row) => row.id),
        ),
      );
    await refreshListings(tx, [...new Set(rows.map((row) => row.itemId))]);
    return { cut: rows.length };
  });
}
