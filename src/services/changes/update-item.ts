import { and, desc, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type ItemField, type ItemPatch, itemPatchSchema } from '../../core/item';
import { sameJson } from '../../core/json';
import { type Tx, transaction } from '../../db/client';
import { changeRecord, item } from '../../db/schema';
import type { Actor } from '../access/actor';
import { cleanRichText } from '../records/clean-rich-text';
import { enqueueStock } from '../records/enqueue-stock';
import { loadItem } from '../records/load-items';
import { refreshListings } from '../records/refresh-listings';
import { checkCustomValues } from './check-custom-values';
import { countVariations } from './count-variations';
import { recordChanges } from './record-changes';
import { takeSku } from './take-sku';
import { takeVariations } from './take-variations';
export const updateItemSchema = z
  .object({
    /** The version that the change was made on. */
    baseVersion: z.number().int().positive(),
    patch: itemPatchSchema,
  })
  .strict();

/**
 * What somebody else changed since the base version in the very fields that are to be changed now. Changes to other
 * fields do not clash and both stay.
 */
async function clashes(tx: Tx, id: number, baseVersion: number, fields: ItemField[]) {
  const since = await tx
    .select()
    .from(changeRecord)
    .where(
      and(eq(changeRecord.itemId, id), gt(changeRecord.itemVersion, baseVersion), inArray(changeRecord.field, fields)),
    )
    .orderBy(desc(changeRecord.id));
  return [...new Map(since.reverse().map((one) => [one.field, one])).values()];
}

/** Changes fields of an item; what it makes of its listings is computed in the same transaction. */
export async function updateItem(
  actor: Actor,
  id: number,
  input: z.infer<typeof updateItemSchema>,
): Promise<{ version: number }> {
  const at = new Date();
  const patch = { ...input.patch } as ItemPatch; // parsed with the item's own schema
  if (patch.description !== undefined) patch.description = cleanRichText(patch.description);
  return transaction(async (tx) => {
    await tx.select({ id: item.id }).from(item).where(eq(item.id, id)).for('update');
    const before = await loadItem(tx, id);
    const fields = (Object.keys(patch) as ItemField[]).filter((field) => !sameJson(before[field], patch[field])); // keys of a parsed patch
    if (fields.length === 0) return { version: before.version };
    if (before.version !== input.baseVersion) {
      const clashing = await clashes(tx, id, input.baseVersion, fields);
      if (clashing.length) {
        throw new NettingError('conflict', `${clashing[0]?.byName ?? 'Somebody'} changed the same field meanwhile`, {
          details: clashing.map((one) => ({ field: one.field, message: JSON.stringify(one.to) })),
          fix: 'Compare both and choose',
        });
      }
    }
    if (fields.includes('sku') && patch.sku) await takeSku(tx, patch.sku, at);
    if (fields.includes('own') && patch.own) await checkCustomValues(tx, patch.own);
    const hasVariations = fields.includes('axes') || fields.includes('variations');
    if (hasVariations) await takeVariations(tx, before, patch, at);
    const version = before.version + 1;
    const set = Object.fromEntries(fields.map((field) => [field, patch[field]]));
    await tx
      .update(item)
      .set({ ...set, version, updatedAt: at })
      .where(eq(item.id, id));
    await recordChanges(
      tx,
      { actor, why: 'typing', at },
      fields.map((field) => ({ itemId: id, itemVersion: version, field, from: before[field], to: patch[field] })),
    );
    const counted = hasVariations && (patch.axes ?? before.axes).length > 0;
    const quantity = counted
      ? await countVariations(tx, actor, before, patch.variations ?? before.variations, at)
      : before.quantity;
    await refreshListings(tx, [id]);
    if (quantity !== before.quantity) await enqueueStock(tx, id, quantity);
    return { version };
  });
}
