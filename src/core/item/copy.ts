import { itemFieldEntries, itemFieldIds } from '../field/item-fields';
import type { CustomField } from './custom-fields';
import { emptyItemFields, type Item, type ItemFields } from './item';

/**
 * A copy keeps what describes the thing and drops what identifies the single piece: the catalogue of fields says of each
 * which it is. Quantities and own fields that are not to be copied stay behind, too. Photos, links and sales are not
 * fields and so never travel along (photos can be asked for). A barcode names the product, not the piece, and stays;
 * those of variations too.
 */
export function copyForNew(item: Item, customFields: readonly CustomField[] = []): Omit<ItemFields, 'sku'> {
  const kept = itemFieldIds.filter((id) => itemFieldEntries[id].traits.copied !== false);
  const fields = { ...emptyItemFields, ...Object.fromEntries(kept.map((id) => [id, item[id]])) };
  const dropped = new Set(customFields.filter((field) => !field.copied).map((field) => field.key));
  return {
    ...fields,
    own: Object.fromEntries(Object.entries(item.own).filter(([key]) => !dropped.has(key))),
    variations: item.variations.map((row) => ({ ...row, key: '', sku: '', quantity: 0 })),
  };
}

/** The part of a copied title that will have to be replaced first: the model, else everything behind the brand. */
export function wordsToReplace(item: Pick<Item, 'title' | 'brand' | 'model'>): { from: number; to: number } {
  const title = item.title.toLowerCase();
  const model = item.model.trim().toLowerCase();
  const at = model ? title.indexOf(model) : -1;
  if (at >= 0) return { from: at, to: at + model.length };
  const brand = item.brand.trim().toLowerCase();
  const behind = brand && title.startsWith(brand) ? brand.length + 1 : 0;
  return { from: Math.min(behind, item.title.length), to: item.title.length };
}
