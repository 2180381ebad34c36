import { eq } from 'drizzle-orm';
import { driftedFields } from '../core/sync';
import { transaction } from '../db/client';
import { listing } from '../db/schema';
import type { RemoteListing } from '../markets';
import type { LoadedAccount } from './account-context';
import { systemActor } from './actor';
import type { ListingRow } from './refresh-listings';
import { byRule, settleFields } from './settle-drift';

/** A refusal in review needs a person; the reasons stay with the listing. */
export const refusalOf = (remote: RemoteListing) =>
  remote.state === 'refused'
    ? { problem: true, refusal: (remote.reasons?.join(' ') || 'No reason was given').slice(0, 500) }
    : { refusal: null };

/** Whether they show something that we did not send. Their quantity falls by sales, which come as events of their own. */
export const hasDrifted = (base: ListingRow['base'], seen: RemoteListing['content']): boolean =>
  driftedFields(base ?? {}, seen).some((field) => field !== 'quantity' && field !== 'sku');

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
    const [row] = await tx.select().from(listing).where(eq(listing.id, listingId)).for('update');
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
