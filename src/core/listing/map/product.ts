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

const byId = new WeakMap<ProductMap, Map<string, FoundProduct>>();

/** The entry of that id, where it was found before; others may not be there at all. */
export function knownProduct(products: ProductMap, id: string): FoundProduct | null {
  let known = byId.get(products);
  if (!known) {
    known = new Map(Object.values(products).map((one) => [one.id, one]));
    byId.set(products, known);
  }
  return known.get(id) ?? null;
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
