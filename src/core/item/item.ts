import { z } from 'zod';
import { jsonSchema } from '../json';
import { conditionIds } from './condition';
import type { CustomValues } from './custom-fields';
import { skuPattern } from './sku';
import { axisSchema, mostAxes, mostCombinations, variationSchema } from './variations';

const text = (max: number) => z.string().max(max, `At most ${max.toLocaleString('en')} characters`);
const minor = z.number().int().min(0, 'Not below zero').max(100_000_000_00, 'Too large');

/** A photo as an item holds it: the original by content hash, in the item's order. */
export const photoSchema = z.object({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  /** What a photo of a flaw shows, in a few words; it can be taken over into the condition note. */
  flaw: z.string().max(200).optional(),
});
export type Photo = z.infer<typeof photoSchema>;

/**
 * What a person writes about an item. Everything may be missing while it is a draft; what a marketplace needs is
 * told by the checks, not by this schema. Money in minor units of `currency`, weight in grams, lengths in millimetres.
 */
export const itemFieldsSchema = z.object({
  sku: z.string().regex(skuPattern, 'Use 1 to 40 letters, digits, dots, dashes or slashes'),
  title: text(300),
  brand: text(80),
  model: text(120),
  category: text(120).describe('Own category, as a path such as cameras/slr'),
  condition: z.enum(conditionIds).nullable(),
  conditionNote: text(1_000),
  description: text(60_000).describe('Rich text, cleaned to a small set of tags'),
  highlights: z.array(text(250)).max(12),
  keywords: z.array(text(60)).max(60),
  attributes: z.record(z.string().min(1).max(60), text(300)),
  price: minor.nullable(),
  retailPrice: minor.nullable(),
  cost: minor.nullable(),
  barcode: text(20),
  location: text(60),
  supplier: text(120),
  boughtOn: z.iso.date().nullable(),
  notes: text(10_000),
  weightGrams: z.number().int().min(0).max(1_000_000).nullable(),
  lengthMm: z.number().int().min(0).max(20_000).nullable(),
  widthMm: z.number().int().min(0).max(20_000).nullable(),
  heightMm: z.number().int().min(0).max(20_000).nullable(),
  expiresOn: z.iso.date().nullable().describe('Best before, where the kind of thing has it'),
  own: z.record(z.string().max(30), z.json()).describe('Values of your own fields, by key'),
  axes: z.array(axisSchema).max(mostAxes).describe('What its variations differ in'),
  variations: z.array(variationSchema).max(mostCombinations),
});
export type ItemFields = Omit<z.infer<typeof itemFieldsSchema>, 'own'> & { own: CustomValues };
export type ItemField = keyof ItemFields;

/** What a change to an item may carry: any of the fields, nothing else. */
export const itemPatchSchema = itemFieldsSchema.partial().strict();
export type ItemPatch = Partial<ItemFields>;

/** An item as the rest of the core sees it: what was written, plus what the system keeps. */
export const itemSchema = itemFieldsSchema.extend({
  own: z.record(z.string(), jsonSchema),
  id: z.number(),
  version: z.number(),
  currency: z.string(),
  /** Units on hand: the sum of the stock ledger. */
  quantity: z.number(),
  photos: z.array(photoSchema),
});
export type Item = z.infer<typeof itemSchema>;

export const emptyItemFields: Omit<ItemFields, 'sku'> = {
  title: '',
  brand: '',
  model: '',
  category: '',
  condition: null,
  conditionNote: '',
  description: '',
  highlights: [],
  keywords: [],
  attributes: {},
  price: null,
  retailPrice: null,
  cost: null,
  barcode: '',
  location: '',
  supplier: '',
  boughtOn: null,
  notes: '',
  weightGrams: null,
  lengthMm: null,
  widthMm: null,
  heightMm: null,
  expiresOn: null,
  own: {},
  axes: [],
  variations: [],
};
