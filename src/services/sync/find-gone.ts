import { and, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { item, listing } from '../../db/schema';

export const goneViewSchema = z.object({
  listingId: z.number(),
  itemId: z.number(),
  accountId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  quantity: z.number(),
  /** It was sold out there; otherwise it was ended or taken down. */
  wasSold: z.boolean(),
  since: z.string().nullable(),
});
export type GoneView = z.infer<typeof goneViewSchema>;

export const isGone = and(
  eq(listing.wanted, 'live'),
  inArray(listing.remote, ['off', 'ended', 'gone', 'sold']),
  eq(listing.busy, false),
  gt(listing.wantedQuantity, 0),
);

/** Listings that we want live, that have something to offer, and that are not there any more. */
export async function findGone(limit = 500): Promise<{ gone: GoneView[] }> {
  const rows = await database()
    .select({
      listingId: listing.id,
      itemId: item.id,
      accountId: listing.accountId,
      sku: item.sku,
      title: item.title,
      photo: item.mainPhoto,
      quantity: item.quantity,
      remote: listing.remote,
      since: listing.seenAt,
    })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(isGone)
    .orderBy(listing.id)
    .limit(limit);
  return {
    gone: rows.map(({ remote, since, ...row }) => ({
      ...row,
      wasSold: remote === 'sold',
      since: since?.toISOString() ?? null,
    })),
  };
}
