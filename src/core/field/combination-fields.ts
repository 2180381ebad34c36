import { z } from 'zod';
import { variationSchema } from '../item/variations';
import { type Field, makeField } from './field';

const { shape } = variationSchema;

/** What is written for one combination, in the order of its table. */
const entries = {
  on: makeField('combination', 'on', {
    label: 'On',
    kind: { is: 'boolean', words: ['on', 'off'] },
    schema: shape.on,
    empty: false,
  }),
  sku: makeField('combination', 'sku', {
    label: 'Stock number',
    kind: { is: 'text', most: 40 },
    schema: shape.sku,
    empty: '',
    traits: { identifies: true, copied: false, mono: true },
  }),
  quantity: makeField('combination', 'quantity', {
    label: 'Stock',
    kind: { is: 'whole', least: 0, most: 1_000_000 },
    schema: z.number().int().min(-1_000_000).max(1_000_000),
    empty: 0,
    traits: { ledger: true, copied: false },
  }),
  price: makeField('combination', 'price', { label: 'Price', kind: { is: 'priceRule' }, schema: shape.price }),
  barcode: makeField('combination', 'barcode', {
    label: 'Barcode',
    kind: { is: 'text', most: 20 },
    schema: shape.barcode,
    empty: '',
    traits: { mono: true },
  }),
};

export type CombinationFieldId = keyof typeof entries;
export const combinationFields: Record<CombinationFieldId, Field> = entries;
// keys of the constant above
export const combinationFieldIds = Object.keys(entries) as [CombinationFieldId, ...CombinationFieldId[]];
