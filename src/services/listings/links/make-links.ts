import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { priorities } from '../../../core/sync';
import { transaction } from '../../../db/client';
import type { RemoteListing } from '../../../markets';
import type { Actor } from '../../access/actor';
import { openAccount } from '../../records/accounts/open-account';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';
import { refreshListings } from '../../records/listings/refresh-listings';
import { linkListing } from './link-listing';

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
    const why = await linkListing(tx, itemId, accountId, shown);
    if (why) return why;
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
