import { eq, sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import { refreshListings } from '../../services/records/listings/refresh-listings';
import { hasDrifted, refusalOf } from '../../services/records/listings/shown-columns';
import { listAgainIfCancelled } from '../../services/stock/list-again-if-cancelled';
import type { JobRow } from '../claim';
import { close, told } from './close';
import { baseAfter, numberOrNull, type Sent, sentAfter } from './sent';

const longestUrl = 300;

/** They confirmed: snapshots, number and link are stored and the job ends, together. */
export async function finishSent(row: JobRow, worker: string, itemId: number, sent: Sent): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const isNew = (sent.outcome === 'created' || sent.outcome === 'renewed') && !sent.isSwitchedOn;
    const verb = sent.isSwitchedOn ? 'switched on again' : isNew ? 'made' : sent.outcome;
    const closed = await close(
      tx,
      row,
      worker,
      {
        state: 'done',
        outcome: sent.outcome,
        message: null,
        fix: null,
        errorCode: null,
        field: null,
        story: told(row, `They answered: listing ${sent.remote.remoteId} ${verb}`),
      },
      sent.earlier,
    );
    if (!closed) return;
    const [before] = await tx.select().from(listing).where(eq(listing.id, row.listingId));
    const base = baseAfter(before?.base ?? null, sent);
    const isLive = sent.remote.state === 'live' || sent.remote.state === 'review';
    await tx
      .update(listing)
      .set({
        remote: sent.remote.state,
        remoteId: sent.remote.remoteId,
        // A link that no column holds is not worth the listing: it is read again with the next showing.
        remoteUrl: sent.remote.url && sent.remote.url.length > longestUrl ? null : sent.remote.url,
        sentAt: at,
        seenAt: at,
        seen: sent.remote.content,
        base,
        drifted: hasDrifted(base, sent.remote.content),
        renewsAt: sent.remote.renewsAt,
        offersOpen: sent.remote.offersOpen,
        endsAt: sent.remote.endsAt,
        bids: sent.remote.bids,
        highestBid: sent.remote.highestBid,
        ...(sent.outcome === 'ended'
          ? { wanted: sql`if(wanted = 'live', 'live', 'ended')`, sentQuantity: 0 }
          : {
              sent: sentAfter(before?.sent ?? null, sent),
              sentPrice: numberOrNull(sentAfter(before?.sent ?? null, sent).price),
              sentQuantity: numberOrNull(sentAfter(before?.sent ?? null, sent).quantity),
            }),
        ...(isNew ? { liveSince: at, timesMade: sql`times_made + 1`, ...refusalOf(sent.remote) } : {}),
      })
      .where(eq(listing.id, row.listingId));
    if (isLive) await refreshListings(tx, [itemId]);
    if (sent.outcome === 'ended') await listAgainIfCancelled(tx, itemId, row.listingId, row.createdAt);
  });
}
