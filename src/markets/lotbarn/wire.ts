import type { Content } from '../../core/listing';
import { readTier, writeTier } from '../../core/price';
import { amount, extra, fieldsFrom, number, said, text } from '../content';

const currency = 'EUR';

const tiersOf = (content: Content) => {
  const lines = extra(content, 'tiers');
  if (!Array.isArray(lines)) return [];
  return lines.flatMap((line) => {
    const tier = readTier(String(line), currency);
    return tier ? [{ from: tier.pieces, cents: tier.price }] : [];
  });
};

const tiersFrom = (wire: unknown): string[] | undefined =>
  Array.isArray(wire) && wire.length
    ? wire.map(({ from, cents }: { from: number; cents: number }) =>
        writeTier({ pieces: Number(from), price: Number(cents) }, currency),
      )
    : undefined;

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
    'extra.tiers': tiersFrom(wire.tiers),
  });
