import type { Content } from '../../core/listing';
import { amount, extra, fieldsFrom, number, said, text } from '../content';

const extras = ['ships', 'tax', 'battery', 'hazard', 'expires'];

/** Our content as an offer on Crateway. */
export const toWire = (content: Content): Record<string, unknown> => ({
  number: text(content, 'sku'),
  product: text(content, 'product'),
  condition: text(content, 'condition'),
  note: text(content, 'conditionNote') || null,
  cents: amount(content, 'price'),
  quantity: number(content, 'quantity'),
  ...Object.fromEntries(extras.map((id) => [id, extra(content, id)])),
});

export const wireFields = fieldsFrom(
  {
    sku: ['number'],
    product: ['product'],
    condition: ['condition'],
    conditionNote: ['note'],
    price: ['cents'],
    quantity: ['quantity'],
    ...Object.fromEntries(extras.map((id) => [`extra.${id}`, [id]])),
  },
  'none',
);

/** What Crateway shows, in our fields. */
export const fromWire = (wire: Record<string, unknown>): Content =>
  said({
    sku: wire.number,
    product: wire.product,
    condition: wire.condition,
    conditionNote: wire.note,
    price: wire.cents,
    quantity: wire.quantity,
    ...Object.fromEntries(extras.map((id) => [`extra.${id}`, wire[id]])),
  });
