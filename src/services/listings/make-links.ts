import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { priorities } from '../../core/sync';
import { transaction } from '../../db/client';
import { item, listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import type { Actor } from '../access/actor';
import { enqueueJobs } from '../records/enqueue-jobs';
import { openAccount } from '../records/open-account';
import { refreshListings } from '../records/refresh-listings';
import { hasDrifted, refusalOf } from '../records/shown-columns';

export const makeLinksSchema = z
  .object({
    account: z.number().int(),
    links: z
      .array(z.object({ remoteId: z.string().min(1).max(60), itemId: z.number().int() }).strict())
      .min(1)
      .max(500),
    /** Ours goes to them at once, or both stay as they are and what differs is shown. */
    afterwards: z.enum(['send', 'show']),
  })
  .strict();

/** Links listings that are there with items of ours. */
export async function makeLinks(
  _actor: Actor,
  input: z.infer<typeof makeLinksSchema>,
): Promise<{ linked: number; refused: { remoteId: string; why: string }[] }> {
  const { session, connector, account } = await openAccount(input.account);
  const refused: { remoteId: string; why: string }[] = [];
  let linked = 0;
  for (const { remoteId, itemId } of input.links) {
    const shown = await connector.read(session, remoteId);
    const why = await link(input, itemId, shown, account.id);
    if (why) refused.push({ remoteId, why });
    else linked++;
  }
  return { linked, refused };
}

async function link(
  input: z.infer<typeof makeLinksSchema>,
  itemId: number,
  shown: RemoteListing,
  accountId: number,
): Promise<string | null> {
  if (shown.state !== 'live' && shown.state !== 'review') return 'It is not live there any more';
  return transaction(async (tx) => {
    const [other] = await tx
      .select({ id: listing.id })
      .from(listing)
      .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, shown.remoteId)));
    if (other) return 'This number is linked already';
    const knot = and(eq(listing.itemId, itemId), eq(listing.accountId, accountId));
    const [row] = await tx.select().from(listing).where(knot).for('update');
    if (row && (row.remote === 'live' || row.remote === 'review')) return 'The item is live there under another number';
    if (row?.busy) return 'A change of the item is on its way there';
    const [known] = await tx.select({ id: item.id }).from(item).where(eq(item.id, itemId));
    if (!known) return 'There is no such item';
    const at = new Date();
    const price = typeof shown.content.price === 'number' ? shown.content.price : null;
    const quantity = typeof shown.content.quantity === 'number' ? shown.content.quantity : null;
    const set = {
      wanted: 'live' as const,
      remote: shown.state,
      ...refusalOf(shown),
      remoteId: shown.remoteId,
      remoteUrl: shown.url,
      // What they show stands for what was sent: from here on only differences are told.
      sent: shown.content,
      base: shown.content,
      seen: shown.content,
      sentPrice: price,
      sentQuantity: quantity,
      drifted: hasDrifted(shown.content, shown.content),
      renewsAt: shown.renewsAt,
      offersOpen: shown.offersOpen,
      liveSince: row?.liveSince ?? at,
      seenAt: at,
      sentAt: at,
      timesMade: Math.max(1, row?.timesMade ?? 0),
    };
    if (row) await tx.update(listing).set(set).where(eq(listing.id, row.id));
    else await tx.insert(listing).values({ itemId, accountId, overrides: {}, ...set });
    await refreshListings(tx, [itemId]);
    if (input.afterwards === 'send')
      await enqueueJobs(tx, {
        where: sql`l.item_id = ${itemId} and l.account_id = ${accountId}`,
        priority: priorities.content,
        runId: null,
      });
    return null;
  });
}
