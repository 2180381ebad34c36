import type { Content } from '../../core/listing';
import { fromCentimetres, toCentimetres } from '../../core/measure';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, sidesFrom, text } from '../content';
import { variationsFromWire, variationsToWire } from '../variations';

const extras = ['maker', 'decade', 'kind', 'postageProfile', 'returnProfile', 'materials', 'personalPrompt', 'section'];

/** Our content as Oakhand's fields: decimal price, grams and centimetres. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  const price = amount(content, 'price');
  return {
    ownNumber: text(content, 'sku'),
    name: text(content, 'title'),
    about: text(content, 'description'),
    category: text(content, 'category'),
    traits: attributes(content),
    condition: text(content, 'condition'),
    price: price === null ? null : price / 100,
    amount: number(content, 'quantity'),
    tags: list(content, 'tags'),
    pictureNumbers: photoIds,
    clip: text(content, 'clip') || null,
    grams: number(content, 'weightGrams') || null,
    centimetres: Array.isArray(content.size) ? content.size.map((side) => toCentimetres(Number(side))) : null,
    ...Object.fromEntries(extras.map((id) => [id, extra(content, id)])),
    options: variationsToWire(content, photoIds),
  };
}

export const wireFields = fieldsFrom(
  {
    variations: ['options'],
    sku: ['ownNumber'],
    title: ['name'],
    description: ['about'],
    category: ['category', 'traits'],
    condition: ['condition'],
    price: ['price'],
    quantity: ['amount'],
    tags: ['tags'],
    photos: ['pictureNumbers'],
    clip: ['clip'],
    weightGrams: ['grams'],
    size: ['centimetres'],
    ...Object.fromEntries(extras.map((id) => [`extra.${id}`, [id]])),
  },
  'traits',
);

/** What Oakhand shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  return said({
    variations: variationsFromWire(wire.options),
    sku: wire.ownNumber,
    title: wire.name,
    description: wire.about,
    category: wire.category,
    condition: wire.condition,
    price: typeof wire.price === 'number' ? Math.round(wire.price * 100) : null,
    quantity: wire.amount,
    tags: wire.tags,
    weightGrams: wire.grams,
    size: sidesFrom(wire.centimetres, fromCentimetres),
    ...Object.fromEntries(extras.map((id) => [`extra.${id}`, wire[id]])),
    ...attributesBack(wire.traits),
  });
}
