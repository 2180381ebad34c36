import { z } from 'zod';
import type { CatalogueEntry } from '../core/listing';
import { nameKey } from '../core/rules';
import type { ProductQuery } from './connector';
import type { Session } from './session';

const productSchema = z.object({
  id: z.string().min(1).max(60),
  brand: z.string().max(200),
  model: z.string().max(200),
  name: z.string().max(500),
  gtin: z.string().nullable(),
  isbn: z.string().nullable(),
  category: z.string().optional(),
});

/** Looks for products in a catalogue that is asked by barcode, ISBN or words of the name. */
export const catalogueAt =
  (path: string) =>
  async (session: Session, by: ProductQuery): Promise<CatalogueEntry[]> => {
    const answer = await session.send({ method: 'GET', path: `${path}?${new URLSearchParams(by).toString()}` });
    const { products } = z.object({ products: z.array(productSchema) }).parse(answer);
    // Words of a name may stand in several entries (the camera, and its manual): the one that is called just so is meant.
    const wanted = 'name' in by ? nameKey(by.name) : '';
    const exact = products.filter(
      (one) => nameKey(`${one.brand} ${one.model}`) === wanted || nameKey(one.model) === wanted,
    );
    const meant = exact.length === 1 ? exact : products;
    return meant.map(({ id, brand, model, name, gtin, isbn, category }) => ({
      id,
      name,
      categoryId: category ?? null,
      brand,
      model,
      barcode: gtin ?? isbn ?? '',
    }));
  };
