import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { type FoundProduct, productKeys, productOf } from '../../../core/listing';
import { database, transaction } from '../../../db/client';
import { account } from '../../../db/schema';
import type { ProductQuery } from '../../../markets/connector';
import type { Actor } from '../../access/actor';
import { openAccount } from '../../records/accounts/open-account';
import { loadItems } from '../../records/items/load-items';
import { refreshListings } from '../../records/listings/refresh-listings';
import { keepProducts } from './keep-products';

export const findProductsSchema = z
  .object({ accountId: z.number().int().positive(), itemIds: z.array(z.number().int().positive()).min(1).max(500) })
  .strict();

/** How a catalogue is asked for what a key identifies. */
function queryOf(key: string, item: { brand: string; model: string }): ProductQuery {
  const [kind, value = ''] = key.split(':');
  if (kind === 'code') return /^97[89]/.test(value) ? { isbn: value } : { gtin: value };
  return { name: `${item.brand} ${item.model}`.trim() };
}

/**
 * Looks items up in a marketplace's catalogue, by barcode or ISBN first and then by brand and model, and keeps what was
 * found for every item that is the same thing. A name that fits several entries is left to a person.
 */
export async function findProducts(
  actor: Actor,
  input: z.infer<typeof findProductsSchema>,
): Promise<{ found: number; unsure: { itemId: number; choices: FoundProduct[] }[]; missing: number[] }> {
  const { account: shop, session, connector } = await openAccount(input.accountId);
  const look = connector.findProducts;
  if (!look) throw new NettingError('invalid', `${connector.name} has no catalogue`);
  const items = await loadItems(database(), input.itemIds);
  const answers = new Map<string, FoundProduct[]>();
  const kept = new Map<string, FoundProduct & { key: string }>();
  const unsure: { itemId: number; choices: FoundProduct[] }[] = [];
  const missing: number[] = [];
  for (const item of items) {
    if (productOf(shop.products, item)) continue;
    let decided = false;
    for (const key of productKeys(item)) {
      let choices = answers.get(key);
      if (!choices) {
        choices = await look(session, queryOf(key, item));
        answers.set(key, choices);
      }
      const [only] = choices;
      if (!only) continue;
      decided = true;
      if (choices.length === 1) kept.set(key, { ...only, key });
      else unsure.push({ itemId: item.id, choices });
      break;
    }
    if (!decided) missing.push(item.id);
  }
  await keepProducts(actor, connector.market, [...kept.values()]);
  const shops = await database()
    .select({ id: account.id })
    .from(account)
    .where(inArray(account.market, [connector.market]));
  if (kept.size && shops.length) await transaction((tx) => refreshListings(tx, input.itemIds));
  return { found: kept.size, unsure, missing };
}
