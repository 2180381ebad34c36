import { eq, sql } from 'drizzle-orm';
import { NettingError } from '../core/errors';
import { type Item, type ItemPatch, unitsOf, type Variation, variationFaults } from '../core/item';
import { priorities } from '../core/sync';
import type { Tx } from '../db/client';
import { item, movement } from '../db/schema';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { takeSku } from './stock-numbers';

/** Refuses a table that does not fit its axes, and takes the stock numbers that are new in it. */
export async function takeVariations(tx: Tx, before: Item, patch: ItemPatch, at: Date): Promise<void> {
  const axes = patch.axes ?? before.axes;
  const rows = patch.variations ?? before.variations;
  const [fault] = variationFaults(axes, rows);
  if (fault) throw new NettingError('invalid', fault, { field: 'variations' });
  const had = new Set([before.sku, ...before.variations.map((row) => row.sku)]);
  for (const { sku } of rows) if (sku && !had.has(sku)) await takeSku(tx, sku, at, 'variations');
}

/**
 * With variations the item's stock is the sum of its combinations: writes the movement that brings it there.
 * @returns the stock by now
 */
export async function countVariations(
  tx: Tx,
  actor: Actor,
  { id, quantity }: Pick<Item, 'id' | 'quantity'>,
  rows: readonly Variation[],
  at: Date,
): Promise<number> {
  const units = unitsOf(rows);
  if (units === quantity) return quantity;
  await tx
    .insert(movement)
    .values({ itemId: id, delta: units - quantity, reason: 'set', variation: 'all', at, byName: actor.name });
  await tx.update(item).set({ quantity: units }).where(eq(item.id, id));
  return units;
}

/** Tells the marketplaces of a new stock: lowered or sold out first. Listings must be computed before. */
export const tellStock = (tx: Tx, itemId: number, quantity: number): Promise<number> =>
  enqueueJobs(tx, {
    where: sql`l.item_id = ${itemId} and (l.busy = 1 or (l.remote in ('live', 'review') and coalesce(l.wanted_quantity <> l.sent_quantity, 1)))`,
    priority: quantity < 1 ? priorities.end : priorities.quantity,
    runId: null,
  });
