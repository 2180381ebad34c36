import { and, asc, eq, gt, inArray, isNull, like, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { formerNumber, item, listing } from '../db/schema';
import type { RemoteListing } from '../markets';
import { openAccount } from './accounts';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { hasDrifted, refusalOf } from './note-seen';
import { refreshListings } from './refresh-listings';

export const findLinksSchema = z.object({
  account: z.coerce.number().int().optional(),
  q: z.string().trim().max(80).optional(),
  after: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export type LinkView = {
  listingId: number;
  itemId: number;
  accountId: number;
  sku: string;
  title: string;
  photo: string | null;
  remoteId: string;
  url: string | null;
  state: string;
  former: { remoteId: string; url: string | null; why: string; at: string }[];
};

/** Own stock number ↔ the marketplace's number, with the numbers that it had before. */
export async function findLinks(
  input: z.infer<typeof findLinksSchema>,
): Promise<{ links: LinkView[]; next: number | null }> {
  const db = database();
  const words = input.q ? `%${input.q.replace(/[%_\\]/g, '\\$&')}%` : null;
  const rows = await db
    .select({ listing, sku: item.sku, title: item.title, photo: item.mainPhoto })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        sql`${listing.remoteId} is not null`,
        input.account ? eq(listing.accountId, input.account) : undefined,
        input.after ? gt(listing.id, input.after) : undefined,
        words ? or(like(item.sku, words), like(item.title, words), like(listing.remoteId, words)) : undefined,
      ),
    )
    .orderBy(asc(listing.id))
    .limit(input.limit + 1);
  const some = rows.slice(0, input.limit);
  const ids = some.map((row) => row.listing.id);
  const former = ids.length
    ? await db.select().from(formerNumber).where(inArray(formerNumber.listingId, ids)).orderBy(asc(formerNumber.id))
    : [];
  return {
    links: some.map(({ listing: row, sku, title, photo }) => ({
      listingId: row.id,
      itemId: row.itemId,
      accountId: row.accountId,
      sku,
      title,
      photo,
      remoteId: row.remoteId ?? '',
      url: row.remoteUrl,
      state: row.state ?? 'none',
      former: former
        .filter((one) => one.listingId === row.id)
        .map((one) => ({ remoteId: one.remoteId, url: one.remoteUrl, why: one.why, at: one.at.toISOString() })),
    })),
    next: rows.length > input.limit ? (some.at(-1)?.listing.id ?? null) : null,
  };
}

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
        mend: 'Wait until it is sent, or take it out of the outbox',
      });
    if (rows.length === 0) throw new NettingError('too-late', 'These links are cut already');
    await tx.insert(formerNumber).values(
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

export type Stranger = {
  accountId: number;
  remoteId: string;
  url: string;
  state: string;
  sku: string;
  title: string;
  price: number | null;
  /** The item that its stock number, or its title, says it is. */
  match: { itemId: number; sku: string; title: string; by: 'stock number' | 'title' } | null;
};

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
export async function findStrangers(accountId: number): Promise<{ strangers: Stranger[] }> {
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
    eq(item.archived, false),
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
    strangers: open.map((one) => {
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
    else await tx.insert(listing).values({ itemId, accountId, differences: {}, ...set });
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
