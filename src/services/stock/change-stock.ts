import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { handReasons, resultingStock } from '../../core/item';
import { transaction } from '../../db/client';
import { item } from '../../db/schema';
import type { Actor } from '../access/actor';
import { moveStock } from './move-stock';

export const changeStockSchema = z.discriminatedUnion('how', [
  z.object({
    how: z.literal('add'),
    units: z.number().int().min(-100_000).max(100_000),
    reason: z.enum(handReasons).default('added'),
    note: z.string().trim().max(200).optional(),
  }),
  z.object({
    how: z.literal('set'),
    units: z.number().int().min(0).max(1_000_000),
    note: z.string().trim().max(200).optional(),
  }),
]);

/** Adds to the stock, or sets it: two different things, said apart. Returns the resulting number. */
export async function changeStock(
  actor: Actor,
  itemId: number,
  input: z.infer<typeof changeStockSchema>,
): Promise<{ quantity: number }> {
  const at = new Date();
  return transaction(async (tx) => {
    const [row] = await tx
      .select({ quantity: item.quantity, axes: item.axes })
      .from(item)
      .where(and(eq(item.id, itemId), eq(item.archived, false)))
      .for('update');
    if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
    if (row.axes.length)
      throw new NettingError('invalid', 'The stock of this item is counted by its variations', {
        field: 'quantity',
        fix: 'Write it in their table',
      });
    const { delta, result } = resultingStock(row.quantity, input);
    if (result < 0 && delta < 0) {
      throw new NettingError('invalid', `Only ${row.quantity} in stock, ${-delta} cannot be taken away`, {
        field: 'quantity',
      });
    }
    if (delta === 0) return { quantity: row.quantity };
    return {
      quantity: await moveStock(
        tx,
        actor,
        itemId,
        delta,
        { reason: input.how === 'add' ? input.reason : 'set', note: input.note || null },
        at,
      ),
    };
  });
}
