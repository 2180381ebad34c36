import { NettingError } from '../../core/errors';
import { type Item, type ItemPatch, variationFaults } from '../../core/item';
import type { Tx } from '../../db/client';
import { takeSku } from './take-sku';

/** Refuses a table that does not fit its axes, and takes the stock numbers that are new in it. */
export async function takeVariations(tx: Tx, before: Item, patch: ItemPatch, at: Date): Promise<void> {
  const axes = patch.axes ?? before.axes;
  const rows = patch.variations ?? before.variations;
  const [fault] = variationFaults(axes, rows);
  if (fault) throw new NettingError('invalid', fault, { field: 'variations' });
  const had = new Set([before.sku, ...before.variations.map((row) => row.sku)]);
  for (const { sku } of rows) if (sku && !had.has(sku)) await takeSku(tx, sku, at, 'variations');
}
