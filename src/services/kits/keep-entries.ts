import { productKeys } from '../../core/listing';
import { database } from '../../db/client';
import type { KitRow } from '../../db/schema';
import type { Actor } from '../access/actor';
import { keepProducts } from '../accounts/mapping/keep-products';
import { loadAccounts } from '../records/accounts/load-accounts';
import type { LotNow } from './find-kit';

const atOnce = 1_000;

/** What an item that is made of a lot has as its model: what the catalogue knows it by. */
export const modelOf = (name: string): string => name.slice(0, 120);

/** What things are called in the catalogue is known from then on. */
export async function keepEntries(actor: Actor, { accountId }: KitRow, lots: readonly LotNow[]): Promise<void> {
  const account = (await loadAccounts(database())).find((one) => one.id === accountId);
  const found = lots.flatMap(({ entry, name }) => {
    const [key] = entry ? productKeys({ barcode: '', brand: '', model: modelOf(name) }) : [];
    return key && account && account.products[key]?.id !== entry ? [{ key, id: entry, name, categoryId: null }] : [];
  });
  const all = [...new Map(found.map((one) => [one.key, one])).values()];
  for (let at = 0; account && at < all.length; at += atOnce)
    await keepProducts(actor, account.row.market, all.slice(at, at + atOnce));
}
