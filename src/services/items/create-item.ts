import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { keyed, ownFaults } from '../../core/change';
import { NettingError } from '../../core/errors';
import { fieldsFor } from '../../core/field';
import {
  combinationWords,
  copyForNew,
  emptyItemFields,
  type ItemPatch,
  itemPatchSchema,
  storable,
  unitsOf,
  variationFaults,
} from '../../core/item';
import { homeCurrency } from '../../core/measure';
import { database, type Executor, isDuplicate, transaction } from '../../db/client';
import { newCombinationKey } from '../../db/combination-key';
import { item, itemPhoto, listing, movement } from '../../db/schema';
import type { Actor } from '../access/actor';
import { type Numbering, numbering } from '../changes/commit/free-sku';
import { recordChanges } from '../changes/commit/record-changes';
import { refusalError } from '../changes/commit/refusal-error';
import { takeSkus } from '../changes/commit/take-skus';
import { belongsTo } from '../changes/commit/target-drafts';
import { type LoadedAccount, loadAccounts } from '../records/accounts/load-accounts';
import { cleanRichText } from '../records/items/clean-rich-text';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { loadItem } from '../records/items/load-items';
import { computeRow, derivedColumns } from '../records/listings/compute-row';
import { sumUpPhotos } from '../records/photos/sum-up-photos';
export const createItemSchema = z
  .object({
    fields: itemPatchSchema.default({}),
    quantity: z.number().int().min(0).max(1_000_000).default(1),
    /** Take over what describes from this item. */
    copyOf: z.number().int().positive().optional(),
    /** Its photos, too. */
    withPhotos: z.boolean().default(false),
    key: z.uuid().optional().describe('The same key makes one item, however often it is sent'),
  })
  .strict();
export type CreateItem = z.input<typeof createItemSchema>;
export type CreatedItem = { id: number; sku: string; known?: boolean };

async function copyPhotos(tx: Executor, from: number, to: number): Promise<void> {
  const photos = await tx
    .select({ hash: itemPhoto.hash, position: itemPhoto.position })
    .from(itemPhoto)
    .where(eq(itemPhoto.itemId, from))
    .orderBy(asc(itemPhoto.position), asc(itemPhoto.id));
  if (photos.length === 0) return;
  await tx.insert(itemPhoto).values(photos.map(({ hash }, position) => ({ itemId: to, hash, position })));
  await sumUpPhotos(tx, [to]);
  await tx
    .update(item)
    .set({ mainPhoto: photos[0]?.hash ?? null, photoCount: photos.length })
    .where(eq(item.id, to));
}

/** Records a new item, its opening stock, and drafts for the accounts that want every new item. */
export async function createItem(actor: Actor, input: CreateItem): Promise<CreatedItem> {
  try {
    return await transaction((tx) => createItemWithin(tx, actor, input));
  } catch (error) {
    const known = input.key !== undefined && isDuplicate(error) ? await madeBy(input.key) : undefined;
    if (known) return { ...known, known: true };
    throw error;
  }
}

const madeBy = async (key: string) =>
  (await database().select({ id: item.id, sku: item.sku }).from(item).where(eq(item.madeBy, key)))[0];

type Making = {
  /** Every account; then the caller changes the item further and has its listings computed afterwards, once. */
  known?: LoadedAccount[];
  /** Every account as it is; the caller asks once more before it commits. */
  asked?: LoadedAccount[];
  /** What gives its stock number; by the shop's pattern when left out. */
  numbers?: Numbering;
  /** A person has said for which accounts it is; those that want every new item when left out. */
  meantFor?: readonly number[] | null;
};

/**
 * The same in the caller's transaction.
 */
export async function createItemWithin(
  tx: Executor,
  actor: Actor,
  input: CreateItem,
  { known, asked, numbers, meantFor }: Making = {},
): Promise<{ id: number; sku: string }> {
  const at = new Date();
  const model =
    input.copyOf === undefined
      ? emptyItemFields
      : copyForNew(await loadItem(tx, input.copyOf), await loadCustomFields(tx));
  const written: ItemPatch = (input.fields ?? {}) as ItemPatch; // parsed with the item's own schema
  const fields = { ...emptyItemFields, ...model, ...storable(written) };
  fields.description = cleanRichText(fields.description);
  fields.variations = keyed(fields.variations, [], newCombinationKey);
  await checkOwn(tx, written);
  const { location, supplier, brand, category } = fields;
  const sku =
    written.sku ?? (await (numbers ?? (await numbering(tx)))({ location, supplier, brand, category, day: at }));
  const taken = await takeSkus(tx, [sku, ...fields.variations.map((row) => row.sku).filter(Boolean)], at);
  if (taken !== null)
    throw refusalError({ item: 0, field: 'sku', kind: 'sku-taken', why: `The stock number ${taken} was given before` });
  const quantity = fields.axes.length ? unitsOf(fields.variations) : (input.quantity ?? 1);
  const [{ insertId: id }] = await tx.insert(item).values({
    ...fields,
    sku,
    currency: homeCurrency,
    quantity,
    madeBy: input.key ?? null,
    createdAt: at,
    updatedAt: at,
  });
  const opening = fields.axes.length
    ? fields.variations.map((row) => ({
        combination: row.key,
        variation: combinationWords(row.values),
        delta: row.quantity,
      }))
    : [{ combination: null, variation: null, delta: quantity }];
  await tx
    .insert(movement)
    .values(opening.map((one) => ({ ...one, itemId: id, reason: 'opening' as const, at, byName: actor.name })));
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
  // The item is held by being new: who makes rules or settings others computes it after us, or has done so before.
  const shops = known ?? asked ?? (await loadAccounts(tx));
  const made = await loadItem(tx, id);
  const drafts = shops.flatMap((one) => {
    const belongs = belongsTo(one.row, made);
    const isMeant = meantFor?.includes(one.id) ?? belongs;
    // That it is left out is kept where it would be meant otherwise.
    if (!isMeant && !belongs) return [];
    const wanted = isMeant ? ('draft' as const) : ('none' as const);
    const derived = known ? {} : derivedColumns(notThere, computeRow(made, notThere, one), one);
    return [{ itemId: id, accountId: one.id, overrides: {}, wanted, chosen: Boolean(meantFor), ...derived }];
  });
  if (drafts.length) await tx.insert(listing).values(drafts);
  return { id, sku };
}

/** A listing that was never sent, and for which nothing was written alone. */
const notThere = { overrides: {}, remote: 'none' as const, remoteId: null, sent: null, timesMade: 0 };

/** Values of one's own fields that do not fit are refused, each at its place. */
async function checkOwn(tx: Executor, { own, axes, variations }: ItemPatch): Promise<void> {
  const [fault] = axes || variations ? variationFaults(axes ?? [], variations ?? []) : [];
  if (fault) throw new NettingError('invalid', fault, { field: 'variations' });
  if (!own) return;
  const faults = ownFaults(own, fieldsFor(await loadCustomFields(tx)));
  const [first] = faults;
  if (first) throw new NettingError('invalid', first.message, { field: first.field, details: faults });
}
