import { eq } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import { systemActor } from '../access/actor';
import { holdItems } from '../changes/hold-items';
import type { LoadedAccount } from '../records/load-accounts';
import { hasDrifted, refusalOf } from '../records/shown-columns';
import { byRule, settleFields } from './settle-fields';

/**
 * Keeps what a marketplace shows of a listing now, beside what we sent: noticed, not overwritten. What the account's
 * rules decide by themselves is done at once.
 * @param readAt when it was asked for: what was sent since then is newer than what they showed
 */
export async function noteSeen(
  account: LoadedAccount,
  listingId: number,
  shown: RemoteListing,
  readAt: Date,
): Promise<void> {
  await transaction(async (tx) => {
    // The item before its listing: what the rules take over is written into both.
    const [known] = await tx.select({ itemId: listing.itemId }).from(listing).where(eq(listing.id, listingId));
    const { listings } = await holdItems(tx, known ? [known.itemId] : []);
    const row = listings.find((one) => one.id === listingId);
    // A number that is not the listing's any more tells nothing of it.
    if (!row || row.remoteId !== shown.remoteId || (row.sentAt && row.sentAt > readAt)) return;
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
        drifted,
      })
      .where(eq(listing.id, row.id));
    if (drifted && Object.keys(account.row.driftRules).length > 0)
      await settleFields(tx, systemActor, account, row.id, byRule);
  });
}
