import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { item, listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import { openAccount } from '../records/open-account';

export const unlinkedListingSchema = z.object({
  accountId: z.number(),
  remoteId: z.string(),
  url: z.string(),
  state: z.string(),
  sku: z.string(),
  title: z.string(),
  price: z.number().nullable(),
  /** The item that its stock number, or its title, says it is. */
  match: z
    .object({
      itemId: z.number(),
      sku: z.string(),
      title: z.string(),
      by: z.enum(['stock number', 'title']),
    })
    .nullable(),
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

const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

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
  const skus = [...new Set(open.map((one) => one.sku).filter(Boolean))];
  const titles = [...new Set(open.map((one) => textOf(one.content.title)).filter(Boolean))];
  // An item that has a link there already cannot be this one, too.
  const free = and(
    eq(item.standing, 'active'),
    or(isNull(listing.id), isNull(listing.remoteId), sql`${listing.remote} not in ('live', 'review')`),
  );
  const found = open.length
    ? await db
        .select({ id: item.id, sku: item.sku, title: item.title })
        .from(item)
        .leftJoin(listing, and(eq(listing.itemId, item.id), eq(listing.accountId, accountId)))
        .where(and(free, or(inArray(item.sku, ['', ...skus]), inArray(item.title, ['', ...titles]))))
    : [];
  const bySku = new Map(found.map((one) => [one.sku, one]));
  const byTitle = new Map(found.filter((one) => one.title).map((one) => [one.title, one]));
  return {
    unlinked: open.map((one) => {
      const title = textOf(one.content.title);
      const sku = bySku.get(one.sku);
      const named = byTitle.get(title);
      const match = sku ? { ...sku, by: 'stock number' as const } : named ? { ...named, by: 'title' as const } : null;
      return {
        accountId,
        remoteId: one.remoteId,
        url: one.url,
        state: one.state,
        sku: one.sku,
        title,
        price: typeof one.content.price === 'number' ? one.content.price : null,
        match: match ? { itemId: match.id, sku: match.sku, title: match.title, by: match.by } : null,
      };
    }),
  };
}
