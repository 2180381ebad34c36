import { desc, sql } from 'drizzle-orm';
import type { Item } from '../../../core/item';
import { productOf } from '../../../core/listing';
import { homeAmount, homeCurrency } from '../../../core/measure';
import type { Comparable } from '../../../core/price';
import { database } from '../../../db/client';
import { sale } from '../../../db/schema';
import { connectorOf } from '../../../markets';
import type { LoadedAccount } from '../accounts/load-accounts';
import { openAccount } from '../accounts/open-account';

export type FoundSales = {
  sales: Comparable[];
  offers: { price: number; quantity: number }[];
  /** Currencies that were converted into the shop's own, and by the rate of which day. */
  converted: { currency: string; date: string }[];
  /** What was asked and said nothing, in words. */
  silent: string[];
};

/** Own sales of the same brand and model. */
async function ownSales({ brand, model }: Pick<Item, 'brand' | 'model'>): Promise<Comparable[]> {
  if (!brand || !model) return [];
  const rows = await database()
    .select({
      unitPrice: sale.unitPrice,
      quantity: sale.quantity,
      soldAt: sale.soldAt,
      currency: sale.currency,
      rateMillionths: sale.rateMillionths,
    })
    .from(sale)
    .where(sql`${sale.state} = 'paid' and ${sale.title} like ${`${brand}%${model}%`.replace(/[_\\]/g, '\\$&')}`)
    .orderBy(desc(sale.soldAt))
    .limit(500);
  return rows.flatMap(({ unitPrice, quantity, soldAt, currency, rateMillionths }): Comparable[] => {
    const date = soldAt.toISOString().slice(0, 10);
    // By the rate of the day on which it was sold; without one it says nothing that could be compared.
    const rate =
      rateMillionths === null ? null : { from: homeCurrency, to: currency, millionths: rateMillionths, date };
    const price = homeAmount(unitPrice, currency, rate);
    return price === null ? [] : [{ price, quantity, date, source: 'own sales' }];
  });
}

/**
 * What such a thing sold for: single sales from every marketplace that tells them, and one's own; all in the shop's own
 * currency, by the rate of the day where they are in another.
 * @param withOffers also what is on offer now
 */
export async function salesOfThing(
  accounts: readonly LoadedAccount[],
  item: Item,
  withOffers: boolean,
): Promise<FoundSales> {
  const found: FoundSales = { sales: await ownSales(item), offers: [], converted: [], silent: [] };
  const seen = new Set<string>();
  for (const shop of accounts) {
    const { market, currency, name } = shop.compiled.rules;
    const { rate } = shop;
    const connector = connectorOf(market);
    if (!connector.pastSales || seen.has(market)) continue;
    seen.add(market);
    if (currency !== homeCurrency && !rate) {
      found.silent.push(`${name}: no exchange rate to ${currency} is known`);
      continue;
    }
    const product = productOf(shop.products, item);
    if (!product) {
      found.silent.push(`${name}: not found in its catalogue yet`);
      continue;
    }
    try {
      const { session } = await openAccount(shop.id);
      const here = <T extends { price: number }>(one: T): T => ({
        ...one,
        price: homeAmount(one.price, currency, rate) ?? one.price,
      });
      found.sales.push(...(await connector.pastSales(session, product.id)).map(here));
      if (withOffers) found.offers.push(...((await connector.presentOffers?.(session, product.id)) ?? []).map(here));
      if (rate) found.converted.push({ currency, date: rate.date });
    } catch (error) {
      found.silent.push(error instanceof Error ? error.message : `${name} did not answer`);
    }
  }
  return found;
}
