import type { Item } from '../../../core/item';
import type { ItemTuple } from '../../records/listings/account-nets';

/** What a net hangs on, of an item that is at hand. */
export const netTuple = (item: Item): ItemTuple => [
  item.id,
  item.price,
  item.quantity,
  item.cost,
  item.weightGrams,
  item.category,
  item.axes.length ? 1 : 0,
  item.lengthMm,
  item.widthMm,
  item.heightMm,
];
