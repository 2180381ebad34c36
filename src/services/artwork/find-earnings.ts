import { and, eq, gt, gte, inArray, ne } from 'drizzle-orm';
import { z } from 'zod';
import { productsOffered, soldProduct } from '../../core/artwork';
import { homeCurrency } from '../../core/measure';
import { netOfSale } from '../../core/price';
import { database } from '../../db/client';
import { artwork, item, listing, sale, template } from '../../db/schema';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';

export const artworkEarningsQuery = z
  .object({
    /** Sales of so many days back. */
    days: z.coerce.number().int().min(1).max(3_650).default(365),
  })
  .strict();

const earningSchema = z.object({
  itemId: z.number(),
  title: z.string(),
  photo: z.string().nullable(),
  product: z.string(),
  account: z.string(),
  pieces: z.number(),
  /** What is left, in minor units of the items' currency; sales of which no rate was known are left out of it. */
  net: z.number(),
  unknown: z.number(),
});
export type ArtworkEarning = z.infer<typeof earningSchema>;

export const artworkEarningsSchema = z.object({ currency: z.string(), earnings: z.array(earningSchema) });

const portion = 2_000;

/** What each picture earned on each product and account, what earned most first. */
export async function findArtworkEarnings({
  days,
}: z.output<typeof artworkEarningsQuery>): Promise<z.infer<typeof artworkEarningsSchema>> {
  const db = database();
  const since = new Date(Date.now() - days * 86_400_000);
  const accounts = await accountsAtHand();
  const accountOf = new Map(accounts.map((one) => [one.id, one]));
  const products = [
    ...new Set([
      ...productsOffered(accounts.map((one) => one.compiled)).map((one) => one.name),
      ...(await db.select({ print: template.print }).from(template)).flatMap(
        ({ print }) => print?.pieces.map((one) => one.product) ?? [],
      ),
    ]),
  ];
  const earned = new Map<string, ArtworkEarning>();
  for (let after = 0; ; ) {
    const rows = await db
      .select({ sale, title: item.title, photo: item.mainPhoto })
      .from(sale)
      .innerJoin(artwork, eq(artwork.itemId, sale.itemId))
      .innerJoin(item, eq(item.id, sale.itemId))
      .where(and(gt(sale.id, after), gte(sale.soldAt, since), ne(sale.state, 'cancelled')))
      .orderBy(sale.id)
      .limit(portion);
    const alone = await productsAlone(rows.flatMap((one) => one.sale.listingId ?? []));
    for (const { sale: one, title, photo } of rows) {
      const account = one.accountId === null ? undefined : accountOf.get(one.accountId);
      const label = account?.compiled.rules.extras
        .flatMap((extra) => extra.values ?? [])
        .find((choice) => choice.area && choice.id === alone.get(one.listingId ?? 0))?.label;
      const product = soldProduct(one.variation, products, label ?? '');
      const key = JSON.stringify([one.itemId, product, one.accountId]);
      const sum = earned.get(key) ?? {
        itemId: one.itemId ?? 0,
        title,
        photo,
        product,
        account: account?.name ?? '',
        pieces: 0,
        net: 0,
        unknown: 0,
      };
      const net = netOfSale(one);
      earned.set(key, {
        ...sum,
        pieces: sum.pieces + one.quantity,
        net: sum.net + (net ?? 0),
        unknown: sum.unknown + (net === null ? one.quantity : 0),
      });
    }
    if (rows.length < portion) break;
    after = rows.at(-1)?.sale.id ?? after;
  }
  return { currency: homeCurrency, earnings: [...earned.values()].sort((a, b) => b.net - a.net) };
}

/** What a listing that offers one thing alone is printed on, by its listing. */
async function productsAlone(listings: number[]): Promise<Map<number, string>> {
  if (listings.length === 0) return new Map();
  const rows = await database()
    .select({ id: listing.id, sent: listing.sent })
    .from(listing)
    .where(inArray(listing.id, [...new Set(listings)]));
  return new Map(rows.map((one) => [one.id, String(one.sent?.['extra.product'] ?? '')]));
}
