import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { listing } from '../../../db/schema';
import type { RemoteListing } from '../../../markets';
import { openAccount } from '../../records/accounts/open-account';
import { itemMatchSchema, matchItems } from './match-items';
import { textOf } from './match-things';

export const unlinkedListingSchema = z.object({
  accountId: z.number(),
  remoteId: z.string(),
  url: z.string(),
  state: z.string(),
  sku: z.string(),
  title: z.string(),
  price: z.number().nullable(),
  /** The item that it seems to be. */
  match: itemMatchSchema.nullable(),
  /** The item that carries its stock number, whatever else is said of both. */
  numbered: z.number().nullable(),
});
export type UnlinkedListing = z.infer<typeof unlinkedListingSchema>;

async function listed(accountId: number): Promise<RemoteListing[]> {
  const { session, connector } = await openAccount(accountId);
  const all: RemoteListing[] = [];
  for (let after: string | null = null; ; ) {
    const page: { listings: RemoteListing[]; next: string | null } = await connector.listPage(session, after);
    all.push(...page.listings.filter((one) => one.state === 'live' || one.state === 'review'));
    if (!page.next) return all;
    after = page.next;
  }
}

/** What is live on an account and linked with nothing of ours, each with the item that it seems to be. */
export async function findUnlinked(accountId: number): Promise<{ unlinked: UnlinkedListing[] }> {
  const db = database();
  const all = await listed(accountId);
  const linked = new Set(
    (
      await db
        .select({ remoteId: listing.remoteId })
        .from(listing)
        .where(and(eq(listing.accountId, accountId), sql`${listing.remoteId} is not null`))
    ).map((row) => row.remoteId),
  );
  const open = all.filter((one) => !linked.has(one.remoteId));
  const { matches, numbered } = await matchItems(db, accountId, open);
  return {
    unlinked: open.map((one) => ({
      accountId,
      remoteId: one.remoteId,
      url: one.url,
      state: one.state,
      sku: one.sku,
      title: textOf(one.content.title),
      price: typeof one.content.price === 'number' ? one.content.price : null,
      match: matches.get(one.remoteId) ?? null,
      numbered: numbered.get(one.remoteId) ?? null,
    })),
  };
}
