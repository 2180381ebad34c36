import { eq } from 'drizzle-orm';
import { type Item, unitsOf, type Variation } from '../../core/item';
import type { Tx } from '../../db/client';
import { item, movement } from '../../db/schema';
import type { Actor } from '../access/actor';

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
