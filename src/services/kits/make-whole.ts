import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { createItemWithin } from '../items/create-item';
import { savePartsWithin } from '../stock/save-parts';
import { lotsOf } from './find-kit';
import { loadKit } from './load-kit';

export const makeWholeSchema = z
  .object({
    title: z.string().trim().min(1, 'What is it called?').max(300),
    price: z.number().int().min(1).max(100_000_000_00).nullable().default(null),
    /** How many sets the lots are of. */
    sets: z.number().int().min(1).max(10_000),
  })
  .strict();

/**
 * Offers the sets whole, too: an item that is one stock with the parts that have come into stock, as many of each as one set
 * holds.
 */
export async function makeWhole(
  actor: Actor,
  id: number,
  { title, price, sets }: z.output<typeof makeWholeSchema>,
): Promise<{ id: number; sku: string; quantity: number }> {
  return transaction(async (tx) => {
    const kit = await loadKit(tx, id, true);
    const lots = (await lotsOf(tx, id)).filter((lot) => lot.state !== 'out' && lot.quantity > 0);
    const waiting = lots.filter((lot) => lot.state !== 'done');
    if (lots.length === 0 || waiting.length)
      throw new NettingError('conflict', `${waiting.length.toLocaleString('en')} lots are not in stock yet`, {
        fix: 'Put every part of it into stock, or take out what no set needs',
      });
    const pieces = new Map<number, number>();
    for (const lot of lots)
      if (lot.itemId !== null) pieces.set(lot.itemId, (pieces.get(lot.itemId) ?? 0) + lot.quantity);
    const few = lots.filter((lot) => Math.floor((pieces.get(lot.itemId ?? 0) ?? 0) / sets) < 1);
    if (few[0])
      throw new NettingError('invalid', `Of ${few[0].name} there are not ${sets} pieces: ${sets} sets cannot hold it`, {
        field: 'sets',
      });
    const made = await createItemWithin(tx, actor, {
      fields: { title, price, supplier: kit.supplier },
      quantity: 0,
    });
    const parts = [...pieces].map(([item, count]) => ({ item, pieces: Math.floor(count / sets) }));
    return { ...made, ...(await savePartsWithin(tx, actor, made.id, { parts })) };
  });
}
