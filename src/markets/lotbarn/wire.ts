import type { Content } from '../../core/listing';
import { parseAmount } from '../../core/measure';
import { amount, extra, fieldsFrom, number, said, text } from '../content';

/** Tiers are written `10: 4.50`: from ten pieces on, 4.50 each. */
const tier = (line: unknown): { from: number; cents: number } | null => {
  const hit = /^\s*(\d{1,4})\s*:\s*([\d.,]+)\s*$/.exec(String(line));
  const cents = hit ? parseAmount(hit[2] ?? '', 'EUR') : null;
  return hit && cents !== null ? { from: Number(hit[1]), cents } : null;
};
const tiersOf = (content: Content) => {
  const lines = extra(content, 'tiers');
  return Array.isArray(lines) ? lines.flatMap((line) => tier(line) ?? []) : [];
};

/** Our content as a lot on Lotbarn. */
export const toWire = (content: Content, photoIds: string[]): Record<string, unknown> => ({
  reference: text(content, 'sku'),
  entry: text(content, 'product'),
  finish: extra(content, 'finish'),
  condition: text(content, 'condition'),
  comment: text(content, 'conditionNote') || null,
  place: extra(content, 'place'),
  cents: amount(content, 'price'),
  quantity: number(content, 'quantity'),
  photos: photoIds,
  tiers: tiersOf(content),
});

export const wireFields = fieldsFrom(
  {
    sku: ['reference'],
    product: ['entry'],
    'extra.finish': ['finish'],
    condition: ['condition'],
    conditionNote: ['comment'],
    'extra.place': ['place'],
    price: ['cents'],
    quantity: ['quantity'],
    photos: ['photos'],
    'extra.tiers': ['tiers'],
  },
  'none',
);

/** What Lotbarn shows, in our fields. */
export const fromWire = (wire: Record<string, unknown>): Content =>
  said({
    sku: wire.reference,
    product: wire.entry,
    'extra.finish': wire.finish,
    condition: wire.condition,
    conditionNote: wire.comment,
    'extra.place': wire.place,
    price: wire.cents,
    quantity: wire.quantity,
  });
