import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { combinationWords } from '../../core/item';
import { transaction } from '../../db/client';
import { item, sale } from '../../db/schema';
import type { Actor } from '../access/actor';

import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { unitsChange } from './units-change';

export const assignSaleSchema = z
  .object({
    item: z.number().int().positive(),
    /** Which combination, where the item has several: its own key. */
    combination: z.string().max(16).optional(),
  })
  .strict();

/**
 * Says of an order that fitted nothing which item, and which of its combinations, was sold. What was sold leaves the stock
 * now, as it would have when it was heard.
 */
export async function assignSale(
  actor: Actor,
  saleId: number,
  input: z.infer<typeof assignSaleSchema>,
): Promise<{ quantity: number; oversold: boolean }> {
  return transaction(async (tx) => {
    // The item before its sale: the order in which a cancellation and a sale hold them, too.
    const [known] = await tx.select({ id: item.id }).from(item).where(eq(item.id, input.item)).for('update');
    if (!known) throw new NettingError('not-found', `There is no item ${input.item}`, { field: 'item' });
    const [row] = await tx.select().from(sale).where(eq(sale.id, saleId)).for('update');
    if (!row) throw new NettingError('not-found', `There is no sale ${saleId}`);
    if (row.state === 'cancelled') throw new NettingError('too-late', 'This order is cancelled');
    if (!row.unassigned) throw new NettingError('too-late', 'This order is assigned already');
    let oversold = false;
    const { items } = allCommitted(
      await commitItems(
        tx,
        [input.item],
        async ({ items: [held] }) => {
          if (!held) return [];
          const sold = held.variations.find((one) => one.key === input.combination);
          if (held.axes.length && !sold)
            throw new NettingError('invalid', 'Say which of its variations was sold', { field: 'combination' });
          const there = held.axes.length ? (sold?.quantity ?? 0) : held.quantity;
          oversold = there < row.quantity;
          await tx
            .update(sale)
            .set({
              itemId: held.id,
              combination: sold?.key ?? null,
              variation: sold ? combinationWords(sold.values) : row.variation,
              cost: row.cost ?? held.cost,
              oversold,
              unassigned: false,
            })
            .where(eq(sale.id, saleId));
          return unitsChange(held, held.axes.length ? sold : undefined, -row.quantity);
        },
        {
          actor,
          why: 'sale',
          at: new Date(),
          send: 'stock',
          stock: { reason: 'sold', saleId, mayGoBelowZero: true },
        },
      ),
    );
    return { quantity: items[0]?.item.quantity ?? 0, oversold };
  });
}
