import type { Content } from '../../core/listing';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, text } from '../content';

/** Our content as Swishel's fields: one text, cents, chips. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  return {
    myCode: text(content, 'sku'),
    words: text(content, 'description'),
    shelf: text(content, 'category'),
    facts: attributes(content),
    wear: text(content, 'condition'),
    cents: amount(content, 'price'),
    hashtags: list(content, 'tags'),
    pics: photoIds,
    colours: extra(content, 'colours') ?? [],
    age: extra(content, 'age'),
    source: extra(content, 'source'),
    styles: extra(content, 'styles') ?? [],
    postage: extra(content, 'postage'),
    grams: number(content, 'weightGrams') || null,
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['myCode'],
    description: ['words'],
    category: ['shelf', 'facts'],
    condition: ['wear'],
    price: ['cents'],
    tags: ['hashtags'],
    photos: ['pics'],
    quantity: ['myCode'],
    weightGrams: ['grams'],
    'extra.colours': ['colours'],
    'extra.age': ['age'],
    'extra.source': ['source'],
    'extra.styles': ['styles'],
    'extra.postage': ['postage'],
  },
  'facts',
);

/** What Swishel shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  return said({
    sku: wire.myCode,
    description: wire.words,
    category: wire.shelf,
    condition: wire.wear,
    price: wire.cents,
    tags: wire.hashtags,
    quantity: wire.gone === true ? 0 : 1,
    weightGrams: wire.grams,
    'extra.colours': wire.colours,
    'extra.age': wire.age,
    'extra.source': wire.source,
    'extra.styles': wire.styles,
    'extra.postage': wire.postage,
    ...attributesBack(wire.facts),
  });
}
