import type { Json } from '../../core/json';
import { productKeys } from '../../core/listing';
import type { Tx } from '../../db/client';
import type { BatchLineRow, LineFound } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';

import { accountsAtHand } from '../records/accounts/accounts-at-hand';

/**
 * Takes an entry's details over into the line's item, where nothing is written there yet; what a person wrote meanwhile
 * stays.
 * @returns what the item can be found by in catalogues now, the surest first
 */
export async function fillFrom(
  tx: Tx,
  actor: Actor,
  runId: number,
  { itemId, code }: Pick<BatchLineRow, 'itemId' | 'code' | 'scanned'>,
  entry: LineFound,
): Promise<string[]> {
  if (itemId === null) return [];
  const { items } = await commitItems(
    tx,
    [itemId],
    ({ items: [item] }) => {
      if (!item) return [];
      const { name, brand, model, barcode, category } = entry;
      // What was typed as words was only to be found by.
      const isSearched = code === '';
      const known: [string, Json, boolean][] = [
        ['title', name.slice(0, 300), item.title === '' || isSearched],
        ['brand', brand.slice(0, 80), item.brand === ''],
        ['model', model.slice(0, 120), item.model === ''],
        ['barcode', barcode.slice(0, 20), item.barcode === ''],
        ['category', category.slice(0, 120), item.category === ''],
      ];
      return known.flatMap(([field, to, isOpen]) =>
        isOpen && to !== '' ? [{ target: { item: itemId }, field, to }] : [],
      );
    },
    { actor, why: 'scan', at: new Date(), runId, send: 'falls', accounts: await accountsAtHand() },
  );
  const [now] = items;
  return now ? productKeys(now.item) : [];
}
