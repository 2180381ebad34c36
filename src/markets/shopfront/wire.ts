import type { Content } from '../../core/listing';
import { amountToText, parseAmount } from '../../core/measure';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, text } from '../content';
import { variationsFromWire, variationsToWire } from '../variations';

const currency = 'EUR';

/** What was at another place of ours is not there any more. */
function moved(place: string, before: Content): Record<string, number> {
  const old = extra(before, 'stockPlace');
  return typeof old === 'string' && old !== place ? { [old]: 0 } : {};
}

/** Our content as Shopfront's fields: decimal price, stock by place, texts for search engines. */
export function toWire(content: Content, photoIds: string[], before: Content = {}): Record<string, unknown> {
  const compareAt = extra(content, 'compareAt');
  const price = amount(content, 'price');
  const place = extra(content, 'stockPlace');
  return {
    stockNumber: text(content, 'sku'),
    title: text(content, 'title'),
    handle: extra(content, 'handle'),
    body: text(content, 'description'),
    vendor: extra(content, 'vendor'),
    productType: extra(content, 'productType'),
    category: text(content, 'category'),
    facts: attributes(content),
    condition: text(content, 'condition') || null,
    price: price === null ? null : amountToText(price, currency),
    compareAt: typeof compareAt === 'number' ? amountToText(compareAt, currency) : null,
    images: photoIds,
    tags: list(content, 'tags'),
    collections: extra(content, 'collections') ?? [],
    search: { title: extra(content, 'searchTitle') ?? '', text: extra(content, 'searchText') ?? '' },
    stock: typeof place === 'string' ? { ...moved(place, before), [place]: number(content, 'quantity') } : null,
    grams: number(content, 'weightGrams') || null,
    variants: variationsToWire(content, photoIds),
  };
}

export const wireFields = fieldsFrom(
  {
    variations: ['variants'],
    sku: ['stockNumber'],
    title: ['title'],
    description: ['body'],
    category: ['category', 'facts'],
    condition: ['condition'],
    price: ['price'],
    quantity: ['stock/shop', 'stock/store'],
    photos: ['images'],
    tags: ['tags'],
    weightGrams: ['grams'],
    'extra.handle': ['handle'],
    'extra.vendor': ['vendor'],
    'extra.productType': ['productType'],
    'extra.collections': ['collections'],
    'extra.searchTitle': ['search/title'],
    'extra.searchText': ['search/text'],
    'extra.compareAt': ['compareAt'],
    'extra.stockPlace': ['stock'],
  },
  'facts',
);

type Nested = Record<string, unknown> | undefined;

/** What Shopfront shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  const search = wire.search as Nested;
  const stock = wire.stock as Nested; // nested objects of theirs; single values are checked by `said` and the comparisons
  // Of several places it is not told which is ours: what a person keeps at another one is that person's.
  const places = Object.entries(stock ?? {});
  const [place, count] = places.length === 1 && places[0] ? places[0] : [];
  return said({
    variations: variationsFromWire(wire.variants),
    sku: wire.stockNumber,
    title: wire.title,
    description: wire.body,
    category: wire.category,
    condition: wire.condition,
    price: parseAmount(String(wire.price ?? ''), currency),
    quantity: typeof count === 'number' ? count : undefined,
    tags: wire.tags,
    weightGrams: wire.grams,
    'extra.handle': wire.handle,
    'extra.vendor': wire.vendor,
    'extra.productType': wire.productType,
    'extra.collections': wire.collections,
    'extra.searchTitle': search?.title,
    'extra.searchText': search?.text,
    'extra.compareAt': wire.compareAt ? parseAmount(String(wire.compareAt), currency) : null,
    'extra.stockPlace': place,
    ...attributesBack(wire.facts),
  });
}
