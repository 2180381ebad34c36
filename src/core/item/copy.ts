import type { CustomField } from './custom-fields';
import type { Item, ItemFields } from './item';

/**
 * A copy keeps what describes the thing and drops what identifies the single piece: stock numbers, place, purchase,
 * expiry, notes, quantities, own fields that are not to be copied. Photos, links and sales are not fields and so never
 * travel along (photos can be asked for). A barcode names the product, not the piece, and stays; those of variations too.
 */
export function copyForNew(item: Item, customFields: readonly CustomField[] = []): Omit<ItemFields, 'sku'> {
  const {
    sku: _sku,
    id: _id,
    version: _version,
    currency: _currency,
    quantity: _quantity,
    photos: _photos,
    ...fields
  } = item;
  const dropped = new Set(customFields.filter((field) => !field.copied).map((field) => field.key));
  return {
    ...fields,
    location: '',
    boughtOn: null,
    supplier: '',
    notes: '',
    conditionNote: '',
    cost: null,
    expiresOn: null,
    own: Object.fromEntries(Object.entries(item.own).filter(([key]) => !dropped.has(key))),
    variations: item.variations.map((row) => ({ ...row, sku: '', quantity: 0 })),
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
