import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { item, sale } from '../../db/schema';
import type { Actor } from '../access/actor';
import { enqueueVariations } from './enqueue-variations';
import { lowerVariation } from './lower-variation';
import { moveStock } from './move-stock';
import { soldVariation } from './sold-variation';
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
    const [row] = await tx.select().from(item).where(eq(item.id, itemId)).for('update');
    if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
    const varied = row.axes.length > 0;
    const order = {
      quantity: input.quantity,
      variation: input.variation ? { values: input.variation, number: '' } : null,
    };
    const sold = varied ? soldVariation(row, order) : null;
    if (varied && !sold)
      throw new NettingError('invalid', 'Say which of its variations was sold', { field: 'variation' });
    const there = sold?.quantity ?? row.quantity;
    if (there < input.quantity) throw new NettingError('invalid', `Only ${there} in stock`, { field: 'quantity' });
    const [{ insertId: saleId }] = await tx.insert(sale).values({
      accountId: null,
      orderId: `hand-${randomUUID()}`,
      itemId,
      sku: row.sku,
      title: row.title,
      quantity: input.quantity,
      unitPrice: input.unitPrice,
      total: input.unitPrice * input.quantity,
      fee: 0,
      cost: row.cost,
      currency: row.currency,
      variation: sold?.values.join(', ').slice(0, 200) ?? null,
      soldAt: at,
    });
    const variation = sold?.values.join(', ').slice(0, 200);
    if (varied) await lowerVariation(tx, itemId, row, order, { actor, at });
    const quantity = await moveStock(tx, actor, itemId, -input.quantity, { reason: 'sold', saleId, variation }, at);
    if (varied) await enqueueVariations(tx, itemId);
    return { saleId, quantity };
  });
}
