import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { combinationKey, type Variation, variationPrice } from '../../core/item';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { updateItem } from '../changes/update-item';
import { holdItems } from '../records/items/hold-items';
import { createItemWithin } from './create-item';

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
  return transaction(async (tx) => {
    const [parent] = (await holdItems(tx, [itemId])).items;
    if (!parent) throw new NettingError('not-found', `There is no item ${itemId}`);
    const isChosen = (row: Variation) => chosen.has(combinationKey(row.values));
    const rows = parent.variations.filter((row) => row.on && isChosen(row));
    if (rows.length < chosen.size)
      throw new NettingError('invalid', 'One of these combinations is not there or switched off', {
        field: 'variations',
      });
    await updateItem(
      actor,
      itemId,
      {
        baseVersion: parent.version,
        patch: {
          variations: parent.variations.map((row) =>
            isChosen(row) ? { ...row, on: false, quantity: 0, sku: '' } : row,
          ),
        },
      },
      tx,
    );
    const items: { id: number; sku: string }[] = [];
    for (const row of rows) {
      const said = Object.fromEntries(parent.axes.map((axis, index) => [axis.name, row.values[index] ?? '']));
      items.push(
        await createItemWithin(tx, actor, {
          copyOf: itemId,
          withPhotos: true,
          quantity: Math.max(0, row.quantity),
          fields: {
            title: [parent.title, ...row.values].join(', ').slice(0, 300),
            attributes: { ...parent.attributes, ...said },
            price: variationPrice(parent.price, row),
            axes: [],
            variations: [],
            cost: parent.cost,
            location: parent.location,
            ...(row.barcode ? { barcode: row.barcode } : {}),
          },
        }),
      );
    }
    return { items };
  });
}
