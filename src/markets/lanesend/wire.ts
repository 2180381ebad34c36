import type { Content } from '../../core/listing';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, number, said, text } from '../content';
import { weightClasses } from './rules';

/** The lightest class that carries the weight. */
export const weightClass = (grams: number): string =>
  weightClasses.find(({ upToGrams }) => grams <= upToGrams)?.id ?? 'freight';

/** Our content as Lanesend's fields. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  const grams = number(content, 'weightGrams');
  return {
    mark: text(content, 'sku'),
    subject: text(content, 'title'),
    body: text(content, 'description'),
    section: text(content, 'category'),
    features: attributes(content),
    grade: text(content, 'condition'),
    cents: amount(content, 'price'),
    pieces: number(content, 'quantity'),
    pictures: photoIds,
    keywords: list(content, 'tags'),
    place: extra(content, 'place'),
    handover: extra(content, 'handover'),
    weightClass: grams > 0 ? weightClass(grams) : null,
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['mark'],
    title: ['subject'],
    description: ['body'],
    category: ['section', 'features'],
    condition: ['grade'],
    price: ['cents'],
    quantity: ['pieces'],
    photos: ['pictures'],
    tags: ['keywords'],
    weightGrams: ['weightClass'],
    'extra.place': ['place'],
    'extra.handover': ['handover'],
  },
  'features',
);

/** What Lanesend shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  return said({
    sku: wire.mark,
    title: wire.subject,
    description: wire.body,
    category: wire.section,
    condition: wire.grade,
    price: wire.cents,
    quantity: wire.pieces,
    tags: wire.keywords,
    'extra.place': wire.place,
    'extra.handover': wire.handover,
    ...attributesBack(wire.features),
  });
}
