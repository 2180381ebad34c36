import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { copyForNew, emptyItemFields, type ItemPatch, itemPatchSchema, unitsOf } from '../../core/item';
import { type Tx, transaction } from '../../db/client';
import { account, item, itemPhoto, listing, movement } from '../../db/schema';
import type { Actor } from '../access/actor';
import { checkCustomValues } from '../changes/check-custom-values';
import { freeSku } from '../changes/free-sku';
import { recordChanges } from '../changes/record-changes';
import { takeSku } from '../changes/take-sku';
import { cleanRichText } from '../records/clean-rich-text';
import { loadCustomFields } from '../records/load-custom-fields';
import { loadItem } from '../records/load-items';
import { refreshListings } from '../records/refresh-listings';
export const createItemSchema = z
  .object({
    fields: itemPatchSchema.default({}),
    quantity: z.number().int().min(0).max(1_000_000).default(1),
    /** Take over what describes from this item. */
    copyOf: z.number().int().positive().optional(),
    /** Its photos, too. */
    withPhotos: z.boolean().default(false),
  })
  .strict();
export type CreateItem = z.input<typeof createItemSchema>;

async function copyPhotos(tx: Tx, from: number, to: number): Promise<void> {
  const photos = await tx
    .select({ hash: itemPhoto.hash, position: itemPhoto.position })
    .from(itemPhoto)
    .where(eq(itemPhoto.itemId, from))
    .orderBy(asc(itemPhoto.position), asc(itemPhoto.id));
  if (photos.length === 0) return;
  await tx.insert(itemPhoto).values(photos.map(({ hash }, position) => ({ itemId: to, hash, position })));
  await tx
    .update(item)
    .set({ mainPhoto: photos[0]?.hash ?? null, photoCount: photos.length })
    .where(eq(item.id, to));
}

/** Records a new item, its opening stock, and drafts for the accounts that want every new item. */
export async function createItem(actor: Actor, input: CreateItem): Promise<{ id: number; sku: string }> {
  const at = new Date();
  return transaction(async (tx) => {
    const model =
      input.copyOf === undefined
        ? emptyItemFields
        : copyForNew(await loadItem(tx, input.copyOf), await loadCustomFields(tx));
    const written: ItemPatch = (input.fields ?? {}) as ItemPatch; // parsed with the item's own schema
    const fields = { ...emptyItemFields, ...model, ...written };
    fields.description = cleanRichText(fields.description);
    if (written.own) await checkCustomValues(tx, written.own);
    const { location, supplier, brand, category } = fields;
    const sku = written.sku ?? (await freeSku(tx, { location, supplier, brand, category, day: at }));
    await takeSku(tx, sku, at);
    const quantity = fields.axes.length ? unitsOf(fields.variations) : (input.quantity ?? 1);
    const [{ insertId: id }] = await tx
      .insert(item)
      .values({ ...fields, sku, currency: 'EUR', quantity, createdAt: at, updatedAt: at });
    await tx.insert(movement).values({ itemId: id, delta: quantity, reason: 'opening', at, byName: actor.name });
    if (input.copyOf && input.withPhotos) await copyPhotos(tx, input.copyOf, id);
    await recordChanges(tx, { actor, why: 'typing', at }, [
      {
        itemId: id,
        itemVersion: 1,
        field: 'created',
        from: null,
        to: input.copyOf ? { copyOf: input.copyOf } : { sku },
      },
    ]);
    const accounts = await tx.select({ id: account.id, autoDraft: account.autoDraft }).from(account);
    const drafts = accounts
      .filter((one) => one.autoDraft)
      .map((one) => ({ itemId: id, accountId: one.id, overrides: {}, wanted: 'draft' as const }));
    if (drafts.length) await tx.insert(listing).values(drafts);
    await refreshListings(tx, [id]);
    return { id, sku };
  });
}
