import { and, asc, eq, gt, inArray, like, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { knotStates } from '../../../core/sync';
import { database } from '../../../db/client';
import { likeText } from '../../../db/like';
import { item, listing, previousRemoteId } from '../../../db/schema';

export const findLinksSchema = z.object({
  account: z.coerce.number().int().optional(),
  q: z.string().trim().max(80).optional(),
  after: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export const linkViewSchema = z.object({
  listingId: z.number(),
  itemId: z.number(),
  accountId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  remoteId: z.string(),
  url: z.string().nullable(),
  state: z.enum(knotStates),
  previous: z.array(
    z.object({
      remoteId: z.string(),
      url: z.string().nullable(),
      why: z.string(),
      at: z.string(),
    }),
  ),
});
export type LinkView = z.infer<typeof linkViewSchema>;

/** Own stock number ↔ the marketplace's number, with the numbers that it had before. */
export async function findLinks(
  input: z.infer<typeof findLinksSchema>,
): Promise<{ links: LinkView[]; next: number | null }> {
  const db = database();
  const words = input.q ? `%${likeText(input.q)}%` : null;
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
  const previous = ids.length
    ? await db
        .select()
        .from(previousRemoteId)
        .where(inArray(previousRemoteId.listingId, ids))
        .orderBy(asc(previousRemoteId.id))
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
      previous: previous
        .filter((one) => one.listingId === row.id)
        .map((one) => ({ remoteId: one.remoteId, url: one.remoteUrl, why: one.why, at: one.at.toISOString() })),
    })),
    next: rows.length > input.limit ? (some.at(-1)?.listing.id ?? null) : null,
  };
}
