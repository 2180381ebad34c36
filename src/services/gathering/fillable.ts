import { withMoreAttributes } from '../../core/gather';
import type { Item, ItemPatch } from '../../core/item';
import { diff } from '../../core/sync';
import type { Tx } from '../../db/client';
import type { ListingRow } from '../../db/schema';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { holdItems } from '../records/items/hold-items';
import { computeRow } from '../records/listings/compute-row';

/** These are an item's own from its beginning. */
const never = new Set(['sku', 'axes', 'variations']);

const isEmpty = (value: unknown) =>
  value === null || value === '' || (typeof value === 'object' && Object.keys(value).length === 0);

/** What an item does not say yet and a listing of it does. */
function emptyOnes(item: Item, told: ItemPatch): ItemPatch {
  const fields: ItemPatch = {};
  for (const [id, value] of Object.entries(told)) {
    if (never.has(id)) continue;
    if (id === 'attributes') {
      const attributes = withMoreAttributes(item.attributes, told.attributes ?? {});
      if (Object.keys(attributes).length > Object.keys(item.attributes).length) fields.attributes = attributes;
    } else if (isEmpty(item[id as keyof Item])) Object.assign(fields, { [id]: value }); // a field of the item
  }
  return fields;
}

/**
 * What may be filled into an item of ours from what a listing says: only what it does not say itself, and nothing by which
 * what is live on another account would become different. Holds the item and its listings.
 */
export async function fillable(
  tx: Tx,
  itemId: number,
  told: ItemPatch,
  accounts: ReadonlyMap<number, LoadedAccount>,
): Promise<{ fields: ItemPatch; hasPhotos: boolean }> {
  const { items, listings } = await holdItems(tx, [itemId]);
  const [item] = items;
  if (!item) return { fields: {}, hasPhotos: true };
  const live = listings.flatMap((row): { row: ListingRow; account: LoadedAccount }[] => {
    const account = accounts.get(row.accountId);
    return account && row.sent && (row.remote === 'live' || row.remote === 'review') ? [{ row, account }] : [];
  });
  const fields: ItemPatch = {};
  let now: Item = item;
  for (const [id, value] of Object.entries(emptyOnes(item, told))) {
    const next: Item = { ...now, [id]: value };
    const isSeen = live.some(
      ({ row, account }) =>
        diff(computeRow(now, row, account).content, computeRow(next, row, account).content).length > 0,
    );
    if (isSeen) continue;
    now = next;
    Object.assign(fields, { [id]: value });
  }
  return { fields, hasPhotos: item.photos.length > 0 || live.length > 0 };
}
