import { eq, sql } from 'drizzle-orm';
import { priorities, standsThere } from '../../core/sync';
import { type Tx, transaction } from '../../db/client';
import { type ListingRow, listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import { systemActor } from '../access/actor';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { holdItems } from '../records/items/hold-items';
import { enqueueJobs, stockFields } from '../records/listings/enqueue-jobs';
import { hasDrifted, refusalOf } from '../records/listings/shown-columns';
import { isStale } from './is-stale';
import { byRule, settleFields } from './settle-fields';

/**
 * They offer more than there is, or offer it again although it is sold or was ended: what holds is told at once, whatever
 * was confirmed before.
 */
async function tellWhatHolds(tx: Tx, row: ListingRow, shown: RemoteListing): Promise<void> {
  const offered = shown.content.quantity;
  const isOver = typeof offered === 'number' && offered > row.wantedQuantity;
  const isBack = !standsThere(row.remote);
  if (!isOver && !isBack && row.wanted !== 'ended') return;
  if (isOver && row.sent) {
    const { quantity: _sent, ...sent } = row.sent;
    await tx.update(listing).set({ sent, sentQuantity: null }).where(eq(listing.id, row.id));
  }
  const urgent = row.wanted === 'ended' || row.wantedQuantity < 1 ? priorities.end : priorities.quantity;
  await enqueueJobs(tx, { where: sql`l.id = ${row.id}`, priority: urgent, runId: null, only: stockFields });
}

/**
 * Keeps what a marketplace shows of a listing now, beside what we sent: noticed, not overwritten. What the account's
 * rules decide by themselves is done at once.
 * @param readAt when it was asked for: what was sent since then is newer than what they showed
 * @returns when to look again, where they may have shown what stood there before our last send; else null
 */
export async function noteSeen(
  account: LoadedAccount,
  listingId: number,
  shown: RemoteListing,
  readAt: Date,
): Promise<Date | null> {
  return transaction(async (tx) => {
    // The item before its listing: what the rules take over is written into both.
    const [known] = await tx.select({ itemId: listing.itemId }).from(listing).where(eq(listing.id, listingId));
    const { listings } = await holdItems(tx, known ? [known.itemId] : []);
    const row = listings.find((one) => one.id === listingId);
    // A number that is not the listing's any more tells nothing of it.
    if (!row || row.remoteId !== shown.remoteId || (row.sentAt && row.sentAt > readAt)) return null;
    const isThere = shown.state === 'live' || shown.state === 'review';
    // It is to be made anew: that the old one is not there is known, and undoes nothing.
    if ((row.remote === 'none' || row.remote === 'maybe') && !isThere) return null;
    const again = await isStale(tx, row, shown, readAt);
    if (again) return again;
    const drifted = shown.state === 'live' && hasDrifted(row.base, shown.content);
    await tx
      .update(listing)
      .set({
        remote: shown.state,
        ...refusalOf(shown),
        seen: shown.content,
        seenAt: new Date(),
        renewsAt: shown.renewsAt,
        offersOpen: shown.offersOpen,
        endsAt: shown.endsAt,
        bids: shown.bids,
        highestBid: shown.highestBid,
        drifted,
      })
      .where(eq(listing.id, row.id));
    if (isThere) await tellWhatHolds(tx, row, shown);
    if (drifted && Object.keys(account.row.driftRules).length > 0)
      await settleFields(tx, systemActor, account, row.id, byRule);
    return null;
  });
}
