import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { productKeys } from '../../../core/listing';
import { database, transaction } from '../../../db/client';
import type { Actor } from '../../access/actor';
import { openAccount } from '../../records/accounts/open-account';
import { loadItems } from '../../records/items/load-items';
import { refreshListings } from '../../records/listings/refresh-listings';
import { keepProducts } from './keep-products';

export const chooseProductSchema = z
  .object({
    accountId: z.number().int().positive(),
    itemId: z.number().int().positive(),
    product: z.object({
      id: z.string().min(1).max(60),
      name: z.string().max(500),
      categoryId: z.string().max(60).nullable(),
    }),
  })
  .strict();

/** A person says which entry of the catalogue it is; kept for every item that is the same thing. */
export async function chooseProduct(actor: Actor, input: z.infer<typeof chooseProductSchema>): Promise<void> {
  const { connector } = await openAccount(input.accountId);
  const [item] = await loadItems(database(), [input.itemId]);
  const [key] = item ? productKeys(item) : [];
  if (!item || !key)
    throw new NettingError('invalid', 'A barcode, or brand and model, is needed to keep the product', {
      field: 'barcode',
    });
  await keepProducts(actor, connector.market, [{ key, ...input.product }]);
  await transaction((tx) => refreshListings(tx, [input.itemId]));
}
