import { desc, sql } from 'drizzle-orm';
import type { Item } from '../../core/item';
import { productOf } from '../../core/listing';
import type { Comparable } from '../../core/price';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import { connectorOf } from '../../markets';
import type { LoadedAccount } from './load-accounts';
import { openAccount } from './open-account';

export type FoundSales = {
  sales: Comparable[];
  offers: { price: number; quantity: number }[];
  /** What was asked and said nothing, in words. */
  silent: string[];
};

/** Own sales of the same brand and model. */
async function ownSales({ brand, model }: Pick<Item, 'brand' | 'model'>): Promise<Comparable[]> {
  if (!brand || !model) return [];
  const rows = await database()
    .select({ unitPrice: sale.unitPrice, quantity: sale.quantity, soldAt: sale.soldAt })
    .from(sale)
    .where(sql`${sale.currency} = 'EUR' and ${sale.title} like ${`${brand}%${model}%`.replace(/[_\\]/g, '\\$&')}`)
    .orderBy(desc(sale.soldAt))
    .limit(500);
  return rows.map(({ unitPrice, quantity, soldAt }) => ({
    price: unitPrice,
    quantity,
    date: soldAt.toISOString().slice(0, 10),
    source: 'own sales',
  }));
}

/**
 * What such a thing sold for: single sales from every marketplace that tells them, and one's own.
 * @param withOffers also what is on offer now
 */
export async function salesOfThing(
  accounts: readonly LoadedAccount[],
  item: Item,
  withOffers: boolean,
): Promise<FoundSales> {
  const found: FoundSales = { sales: await ownSales(item), offers: [], silent: [] };
  const seen = new Set<string>();
  for (const shop of accounts) {
    const { market, currency, name } = shop.compiled.rules;
    const connector = connectorOf(market);
    if (!connector.pastSales || seen.has(market) || currency !== item.currency) continue;
    seen.add(market);
    const product = productOf(shop.products, item);
    if (!product) {
      found.silent.push(`${name}: not found in its catalogue yet`);
      continue;
    }
    try {
      const { session } = await openAccount(shop.id);
      found.sales.push(...(await connector.pastSales(session, product.id)));
      if (withOffers) found.offers.push(...((await connector.presentOffers?.(session, product.id)) ?? []));
    } catch (error) {
      found.silent.push(error instanceof Error ? error.message : `${name} did not answer`);
    }
  }
  return found;
}
