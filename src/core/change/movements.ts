import type { Item } from '../item/item';
import { unitsOf } from '../item/variations';

/** Units that come or go: of one combination, or of an item without any. */
export type Move = { combination: string | null; delta: number };

/**
 * What has to be moved so that the ledger's sums are those of the item after a change: each combination's units are the sum
 * of its movements, switched on or not.
 */
export function movesBetween(before: Item, after: Item): Move[] {
  const rows = new Map<string | null, number>();
  const add = (key: string | null, units: number) => rows.set(key, (rows.get(key) ?? 0) + units);
  if (before.axes.length) for (const row of before.variations) add(row.key, -row.quantity);
  else add(null, -before.quantity);
  if (after.axes.length) for (const row of after.variations) add(row.key, row.quantity);
  else add(null, after.quantity);
  return [...rows].filter(([, delta]) => delta !== 0).map(([combination, delta]) => ({ combination, delta }));
}

/** The units that an item has to sell: with variations the sum of those of its combinations that are switched on. */
export const onHand = (item: Pick<Item, 'axes' | 'variations' | 'quantity'>): number =>
  item.axes.length ? unitsOf(item.variations) : item.quantity;
