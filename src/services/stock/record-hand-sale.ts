import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { combinationWords } from '../../core/item';
import { transaction } from '../../db/client';
import { sale } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { holdItems } from '../records/items/hold-items';
import { soldVariation } from './sold-variation';
import { unitsChange } from './units-change';

export const handSaleSchema = z
  .object({
    quantity: z.number().int().min(1).max(100_000),
    unitPrice: z.number().int().min(0),
    /** Which combination, where there are several. */
    variation: z.array(z.string().max(60)).max(3).optional(),
  })
  .strict();

/** Sold by hand, at a fair or to a neighbour: the same as a sale on a marketplace. */
export async function recordHandSale(
  actor: Actor,
  itemId: number,
  input: z.infer<typeof handSaleSchema>,
): Promise<{ saleId: number; quantity: number }> {
  const at = new Date();
  return transaction(async (tx) => {
    const [item] = (await holdItems(tx, [itemId])).items;
    if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
    const variation = input.variation ? { values: input.variation, number: '' } : null;
    const sold = item.axes.length ? soldVariation(item, { quantity: input.quantity, variation }) : undefined;
    if (item.axes.length && !sold)
      throw new NettingError('invalid', 'Say which of its variations was sold', { field: 'variation' });
    const there = sold?.quantity ?? item.quantity;
    if (there < input.quantity) throw new NettingError('invalid', `Only ${there} in stock`, { field: 'quantity' });
    const [{ insertId: saleId }] = await tx.insert(sale).values({
      accountId: null,
      orderId: `hand-${randomUUID()}`,
      itemId,
      sku: item.sku,
      title: item.title,
      quantity: input.quantity,
      unitPrice: input.unitPrice,
      total: input.unitPrice * input.quantity,
      fee: 0,
      cost: item.cost,
      currency: item.currency,
      combination: sold?.key ?? null,
      variation: sold ? combinationWords(sold.values) : null,
      soldAt: at,
    });
    const { items } = allCommitted(
      await commitItems(tx, [itemId], ({ items: [held] }) => (held ? unitsChange(held, sold, -input.quantity) : []), {
        actor,
        why: 'sale',
        at,
        send: 'stock',
        stock: { reason: 'sold', saleId },
      }),
    );
    return { saleId, quantity: items[0]?.item.quantity ?? 0 };
  });
}
