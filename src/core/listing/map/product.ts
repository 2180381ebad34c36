import { z } from 'zod';
import type { Item } from '../../item/item';
import { nameKey } from '../../rules/compiled';

/** A product of a marketplace's catalogue, with its category there. */
export const foundProductSchema = z.object({
  id: z.string(),
  name: z.string(),
  categoryId: z.string().nullable(),
});
export type FoundProduct = z.infer<typeof foundProductSchema>;

/** What a catalogue tells of a product, to be taken over into an item. */
export const catalogueEntrySchema = foundProductSchema.extend({
  brand: z.string(),
  model: z.string(),
  barcode: z.string(),
});
export type CatalogueEntry = z.infer<typeof catalogueEntrySchema>;
/** By what identifies the thing (see `productKeys`), as found or chosen before. */
export type ProductMap = Record<string, FoundProduct>;

/** What identifies the thing in a catalogue, the surest first: its barcode or ISBN, then brand and model. */
export function productKeys(item: Pick<Item, 'barcode' | 'brand' | 'model'>): string[] {
  const digits = item.barcode.replace(/[^\dX]/gi, '');
  const name = nameKey(`${item.brand} ${item.model}`);
  return [...(digits ? [`code:${digits}`] : []), ...(item.model && name ? [`name:${name}`] : [])];
}

const knownIds = new WeakMap<ProductMap, Set<string>>();

/** Is it an entry that was found before? Others may not be there at all. */
export function isKnownProduct(products: ProductMap, id: string): boolean {
  let ids = knownIds.get(products);
  if (!ids) {
    ids = new Set(Object.values(products).map((one) => one.id));
    knownIds.set(products, ids);
  }
  return ids.has(id);
}

/** The catalogue product of an item, when it was found before. */
export const productOf = (
  products: ProductMap,
  item: Pick<Item, 'barcode' | 'brand' | 'model'>,
): FoundProduct | null => {
  for (const key of productKeys(item)) {
    const found = products[key];
    if (found) return found;
  }
  return null;
};
