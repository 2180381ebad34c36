import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { combinationKey, variationPrice } from '../../core/item';
import { transaction } from '../../db/client';
import { item } from '../../db/schema';
import type { Actor } from '../access/actor';
import { updateItem } from '../changes/update-item';
import { loadItem } from '../records/load-items';
import { createItem } from './create-item';

export const splitVariationsSchema = z
  .object({
    combinations: z
      .array(z.array(z.string().max(60)).min(1).max(3))
      .min(1)
      .max(100),
  })
  .strict();

/**
 * Makes items of their own of some combinations, for marketplaces that take no variations: each with its stock, price,
 * numbers and the values in its title and attributes. The units move: nothing is offered twice.
 */
export async function splitVariations(
  actor: Actor,
  itemId: number,
  input: z.infer<typeof splitVariationsSchema>,
): Promise<{ items: { id: number; sku: string }[] }> {
  const chosen = new Set(input.combinations.map(combinationKey));
  const { parent, rows } = await transaction(async (tx) => {
    const [locked] = await tx.select({ id: item.id }).from(item).where(eq(item.id, itemId)).for('update');
    if (!locked) throw new NettingError('not-found', `There is no item ${itemId}`);
    const whole = await loadItem(tx, itemId);
    const found = whole.variations.filter((row) => row.on && chosen.has(combinationKey(row.values)));
    return { parent: whole, rows: found };
  });
  if (rows.length < chosen.size)
    throw new NettingError('invalid', 'One of these combinations is not there or switched off', {
      field: 'variations',
    });
  // First they leave the item, then they come back as items: stopped in between, units are missing but never twice.
  await updateItem(actor, itemId, {
    baseVersion: parent.version,
    patch: {
      variations: parent.variations.map((row) =>
        chosen.has(combinationKey(row.values)) ? { ...row, on: false, quantity: 0, sku: '' } : row,
      ),
    },
  });
  const items: { id: number; sku: string }[] = [];
  for (const row of rows) {
    const said = Object.fromEntries(parent.axes.map((axis, index) => [axis.name, row.values[index] ?? '']));
    const price = variationPrice(parent.price, row);
    const made = await createItem(actor, {
      copyOf: itemId,
      withPhotos: true,
      quantity: row.quantity,
      fields: {
        title: [parent.title, ...row.values].join(', ').slice(0, 300),
        attributes: { ...parent.attributes, ...said },
        price,
        axes: [],
        variations: [],
        cost: parent.cost,
        location: parent.location,
        ...(row.barcode ? { barcode: row.barcode } : {}),
      },
    });
    items.push(made);
  }
  return { items };
}
