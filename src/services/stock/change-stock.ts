import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { handReasons, resultingStock } from '../../core/item';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

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
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          if (item.axes.length)
            throw new NettingError('invalid', 'The stock of this item is counted by its variations', {
              field: 'quantity',
              fix: 'Write it in their table',
            });
          const { delta, result } = resultingStock(item.quantity, input);
          // What was oversold may be made up for bit by bit.
          if (result < 0 && delta < 0)
            throw new NettingError('invalid', `Only ${item.quantity} in stock, ${-delta} cannot be taken away`, {
              field: 'quantity',
            });
          return [{ target: { item: itemId }, field: 'quantity', to: result }];
        },
        {
          actor,
          why: 'typing',
          at: new Date(),
          send: 'stock',
          stock: { reason: input.how === 'add' ? input.reason : 'set', note: input.note || null, mayGoBelowZero: true },
        },
      ),
    );
    return { quantity: items[0]?.item.quantity ?? 0 };
  });
}
