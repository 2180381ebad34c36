import type { Content } from '../../core/listing';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, text } from '../content';
import { weightClasses } from './rules';

/** The lightest class that carries the weight; the heaviest one takes what is left. */
export const weightClass = (grams: number): string =>
  weightClasses.find(({ upToGrams }) => grams <= upToGrams)?.id ?? 'heavy';

/** Our content as Pippet's fields: flat, prices in cents, a weight class instead of a weight. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  const grams = number(content, 'weightGrams');
  return {
    myNumber: text(content, 'sku'),
    name: text(content, 'title'),
    text: text(content, 'description'),
    brand: text(content, 'brand') || 'none',
    category: text(content, 'category'),
    traits: attributes(content),
    grade: text(content, 'condition'),
    cents: amount(content, 'price'),
    tags: list(content, 'tags'),
    photos: photoIds,
    postagePaidBy: extra(content, 'postagePaidBy'),
    weightClass: grams > 0 ? weightClass(grams) : null,
    // Said every time: left out, Pippet switches the drops on.
    priceDrops: extra(content, 'priceDrops') === true,
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['myNumber'],
    title: ['name'],
    description: ['text'],
    brand: ['brand'],
    category: ['category', 'traits'],
    condition: ['grade'],
    price: ['cents'],
    tags: ['tags'],
    photos: ['photos'],
    weightGrams: ['weightClass'],
    quantity: ['myNumber'],
    'extra.postagePaidBy': ['postagePaidBy'],
    'extra.priceDrops': ['priceDrops'],
  },
  'traits',
);

/** What Pippet shows, in our fields; the weight class says no weight. */
export function fromWire(wire: Record<string, unknown>): Content {
  return said({
    sku: wire.myNumber,
    title: wire.name,
    description: wire.text,
    brand: wire.brand,
    category: wire.category,
    condition: wire.grade,
    price: wire.cents,
    tags: wire.tags,
    quantity: wire.gone === true ? 0 : 1,
    'extra.postagePaidBy': wire.postagePaidBy,
    'extra.priceDrops': wire.priceDrops,
    ...attributesBack(wire.traits),
  });
}
