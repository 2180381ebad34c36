import type { Content } from '../../core/listing';
import { amount, attributes, attributesBack, extra, fieldsFrom, list, said, text } from '../content';
import { variationsFromWire, variationsToWire } from '../variations';

/** Our content as Wallfolk's fields. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  return {
    code: text(content, 'sku'),
    title: text(content, 'title'),
    text: text(content, 'description'),
    theme: text(content, 'category'),
    details: attributes(content),
    artwork: photoIds[0] ?? null,
    // Printables of several products; each combination says which is its own.
    prints: photoIds.length > 1 || content.variations ? photoIds : null,
    pieces: variationsToWire(content, photoIds),
    tags: list(content, 'tags'),
    product: extra(content, 'product'),
    ground: extra(content, 'ground'),
    placement: extra(content, 'placement'),
    scale: extra(content, 'scale'),
    cents: amount(content, 'price'),
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['code'],
    title: ['title'],
    description: ['text'],
    category: ['theme', 'details'],
    photos: ['artwork', 'prints'],
    variations: ['pieces'],
    tags: ['tags'],
    price: ['cents'],
    quantity: ['code'],
    'extra.product': ['product'],
    'extra.ground': ['ground'],
    'extra.placement': ['placement'],
    'extra.scale': ['scale'],
  },
  'details',
);

/** What Wallfolk shows, in our fields. */
export const fromWire = (wire: Record<string, unknown>): Content =>
  said({
    sku: wire.code,
    title: wire.title,
    description: wire.text,
    category: wire.theme,
    price: wire.cents,
    tags: wire.tags,
    variations: variationsFromWire(wire.pieces),
    'extra.product': wire.product,
    'extra.ground': wire.ground,
    'extra.placement': wire.placement,
    'extra.scale': wire.scale,
    ...attributesBack(wire.details),
  });
