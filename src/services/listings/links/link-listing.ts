import { and, eq } from 'drizzle-orm';
import type { Content } from '../../../core/listing';
import type { Tx } from '../../../db/client';
import { item, listing } from '../../../db/schema';
import type { RemoteListing } from '../../../markets';
import { hasDrifted, refusalOf } from '../../records/listings/shown-columns';
import { knot } from '../publish/lock-target';

type Shown = Pick<
  RemoteListing,
  'remoteId' | 'url' | 'state' | 'reasons' | 'content' | 'renewsAt' | 'endsAt' | 'offersOpen' | 'bids' | 'highestBid'
>;

const numberIn = (content: Content, field: string) => {
  const value = content[field];
  return typeof value === 'number' ? value : null;
};

/**
 * Ties a listing that is there to an item, in the caller's transaction; what is computed of it is left to the caller.
 * @returns why it cannot be; null when it is
 */
export async function linkListing(tx: Tx, itemId: number, accountId: number, shown: Shown): Promise<string | null> {
  const [other] = await tx
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, shown.remoteId)));
  if (other) return 'This number is linked already';
  const [row] = await tx.select().from(listing).where(knot(itemId, accountId)).for('update');
  if (row && (row.remote === 'live' || row.remote === 'review')) return 'The item is live there under another number';
  if (row?.busy) return 'A change of the item is on its way there';
  const [known] = await tx.select({ id: item.id }).from(item).where(eq(item.id, itemId));
  if (!known) return 'There is no such item';
  const at = new Date();
  const set = {
    wanted: 'live' as const,
    remote: shown.state,
    ...refusalOf({ state: shown.state, reasons: shown.reasons }),
    remoteId: shown.remoteId,
    remoteUrl: shown.url,
    // What they show stands for what was sent: from here on only differences are told.
    sent: shown.content,
    base: shown.content,
    seen: shown.content,
    sentPrice: numberIn(shown.content, 'price'),
    sentQuantity: numberIn(shown.content, 'quantity'),
    drifted: hasDrifted(shown.content, shown.content),
    renewsAt: shown.renewsAt,
    endsAt: shown.endsAt,
    offersOpen: shown.offersOpen,
    bids: shown.bids,
    highestBid: shown.highestBid,
    liveSince: row?.liveSince ?? at,
    seenAt: at,
    sentAt: at,
    timesMade: Math.max(1, row?.timesMade ?? 0),
  };
  if (row) await tx.update(listing).set(set).where(eq(listing.id, row.id));
  else await tx.insert(listing).values({ itemId, accountId, overrides: {}, ...set });
  return null;
}
