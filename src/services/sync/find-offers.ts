import { and, asc, desc, eq, inArray, ne } from 'drizzle-orm';
import { z } from 'zod';
import { netInput } from '../../core/listing/net';
import { netOf } from '../../core/price';
import { offerStates } from '../../core/sync';
import { database } from '../../db/client';
import { item, listing, offer } from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadItems } from '../records/items/load-items';
import { accountCounts } from '../records/listings/count-listings';

export const findOffersSchema = z
  .object({
    item: z.coerce.number().int().optional(),
    state: z.enum(['open', 'all']).default('open').describe('Open: those that wait for an answer of ours'),
    limit: z.coerce.number().int().min(1).max(200).default(100),
  })
  .strict();

export const offerViewSchema = z.object({
  id: z.number(),
  accountId: z.number(),
  accountName: z.string(),
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  amount: z.number(),
  /** What is asked there now, and what would be left of the offer. */
  asked: z.number().nullable(),
  net: z.number(),
  margin: z.number(),
  currency: z.string(),
  buyer: z.string(),
  words: z.string(),
  state: z.enum(offerStates),
  counter: z.number().nullable(),
  madeAt: z.string(),
  deadline: z.string(),
  answeredBy: z.string().nullable(),
});
export type OfferView = z.infer<typeof offerViewSchema>;

/** Offers of buyers with what would be left of each; those whose time runs out first come first. */
export async function findOffers(query: z.infer<typeof findOffersSchema>): Promise<{ offers: OfferView[] }> {
  const db = database();
  const rows = await db
    .select({ offer, itemId: listing.itemId, sent: listing.sent, asked: listing.sentPrice, photo: item.mainPhoto })
    .from(offer)
    .innerJoin(listing, eq(listing.id, offer.listingId))
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        query.item ? eq(listing.itemId, query.item) : undefined,
        query.state === 'open' ? inArray(offer.state, ['open', 'countered']) : ne(offer.remoteId, ''),
      ),
    )
    .orderBy(query.state === 'open' ? asc(offer.deadline) : desc(offer.id))
    .limit(query.limit);
  if (rows.length === 0) return { offers: [] };
  const [accounts, items, countsOf] = await Promise.all([
    loadAccounts(db, [...new Set(rows.map((row) => row.offer.accountId))]),
    loadItems(db, [...new Set(rows.map((row) => row.itemId))]),
    accountCounts(db),
  ]);
  const accountOf = new Map(accounts.map((one) => [one.id, one]));
  const itemOf = new Map(items.map((one) => [one.id, one]));
  return {
    offers: rows.flatMap(({ offer: one, itemId, sent, asked, photo }): OfferView[] => {
      const account = accountOf.get(one.accountId);
      const thing = itemOf.get(itemId);
      if (!account || !thing) return [];
      const net = netOf({
        ...netInput(account, sent ?? {}, thing, countsOf(account.id).live),
        price: one.amount,
      });
      return [
        {
          id: one.id,
          accountId: account.id,
          accountName: account.name,
          itemId,
          sku: thing.sku,
          title: thing.title,
          photo,
          amount: one.amount,
          asked,
          net: net.net,
          margin: net.margin,
          currency: account.compiled.rules.currency,
          buyer: one.buyer,
          words: one.words,
          state: one.state,
          counter: one.counter,
          madeAt: one.madeAt.toISOString(),
          deadline: one.deadline.toISOString(),
          answeredBy: one.answeredBy,
        },
      ];
    }),
  };
}
