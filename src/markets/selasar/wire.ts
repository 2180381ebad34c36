import type { Content } from '../../core/listing';
import { amountToText, fromCentimetres, parseAmount, toCentimetres } from '../../core/measure';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, sidesFrom, text } from '../content';

const currency = 'SGD';
const money = (minor: number) => amountToText(minor, currency);
/** Kilograms with three places: a gram is never lost. */
const kilograms = (grams: number) => grams / 1_000;

/** Our content as Selasar's fields: SGD, kilograms and centimetres. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  const sale = extra(content, 'salePrice');
  const price = amount(content, 'price');
  return {
    sellerSku: text(content, 'sku'),
    product: text(content, 'product') || null,
    name: text(content, 'title'),
    brand: text(content, 'brand'),
    description: text(content, 'description'),
    category: text(content, 'category'),
    attributes: attributes(content),
    condition: text(content, 'condition'),
    highlights: list(content, 'highlights'),
    contents: extra(content, 'contents') ?? [],
    images: photoIds,
    price: { amount: price === null ? null : money(price), currency },
    sale:
      typeof sale === 'number'
        ? { amount: money(sale), from: extra(content, 'saleFrom'), to: extra(content, 'saleTo') }
        : null,
    quantity: number(content, 'quantity'),
    parcel: {
      kilograms: kilograms(number(content, 'weightGrams')),
      ...(Array.isArray(content.size) ? { centimetres: content.size.map((side) => toCentimetres(Number(side))) } : {}),
    },
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['sellerSku'],
    product: ['product'],
    title: ['name'],
    brand: ['brand'],
    description: ['description'],
    category: ['category', 'attributes'],
    condition: ['condition'],
    highlights: ['highlights'],
    photos: ['images'],
    price: ['price'],
    quantity: ['quantity'],
    weightGrams: ['parcel/kilograms'],
    size: ['parcel/centimetres'],
    'extra.contents': ['contents'],
    'extra.salePrice': ['sale/amount'],
    'extra.saleFrom': ['sale/from'],
    'extra.saleTo': ['sale/to'],
  },
  'attributes',
);

type Nested = Record<string, unknown> | undefined;

/** What Selasar shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  const price = wire.price as Nested;
  const sale = wire.sale as Nested;
  const parcel = wire.parcel as Nested; // nested objects of theirs; single values are checked by `said` and the comparisons
  return said({
    sku: wire.sellerSku,
    product: wire.product,
    title: wire.name,
    brand: wire.brand,
    description: wire.description,
    category: wire.category,
    condition: wire.condition,
    highlights: wire.highlights,
    price: parseAmount(String(price?.amount ?? ''), currency),
    quantity: wire.quantity,
    weightGrams: typeof parcel?.kilograms === 'number' ? Math.round(parcel.kilograms * 1_000) : null,
    size: sidesFrom(parcel?.centimetres, fromCentimetres),
    'extra.contents': wire.contents,
    'extra.salePrice': sale ? parseAmount(String(sale.amount ?? ''), currency) : null,
    'extra.saleFrom': sale?.from,
    'extra.saleTo': sale?.to,
    ...attributesBack(wire.attributes),
  });
}
