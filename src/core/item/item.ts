import { z } from 'zod';
import { visibleSchema } from '../artwork/visible';
import { type ItemFieldId, itemFieldEntries, itemFieldIds } from '../field/item-fields';
import { jsonSchema } from '../json';
import type { CustomValues } from './custom-fields';
import { standings } from './standing';

/** A photo as an item holds it: the original by content hash, in the item's order. */
export const photoSchema = z.object({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  /** What a photo of a flaw shows, in a few words; it can be taken over into the condition note. */
  flaw: z.string().max(200).optional(),
  /** What of it is visible, where it is artwork. */
  visible: visibleSchema.optional(),
  /** What its file was called, where it is artwork. */
  fileName: z.string().optional(),
});
export type Photo = z.infer<typeof photoSchema>;

type Entries = typeof itemFieldEntries;

/**
 * What a person writes about an item, as the catalogue of fields lists it. Everything may be missing while it is a draft;
 * what a marketplace needs is told by the checks, not by this schema. Money in minor units of `currency`, weight in
 * grams, lengths in millimetres.
 */
export const itemFieldsSchema = z.object(
  Object.fromEntries(itemFieldIds.map((id) => [id, itemFieldEntries[id].schema])) as {
    [Id in ItemFieldId]: Entries[Id]['schema']; // one schema for every entry of the catalogue
  },
);
export type ItemFields = Omit<z.infer<typeof itemFieldsSchema>, 'own'> & { own: CustomValues };
export type ItemField = ItemFieldId;

/** Whether a name is one of the fields that are written. */
export const isPatchable = (name: string): name is ItemField => Object.hasOwn(itemFieldEntries, name);

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
  /** Units that are not for sale from here: set aside for a marketplace's warehouse, on the way, there. */
  elsewhere: z.record(z.string(), z.string()),
  /** A short film of it, by its hash; empty for none. */
  clip: z.string(),
  /** Where artwork was placed by hand, by the product, in words; `*` for all of them. */
  placings: z.record(z.string(), z.string()),
  /** What was said of artwork on products and grounds when it was looked over. */
  looks: z.record(z.string(), z.string()),
  /** What is archived or deleted is offered nowhere. */
  standing: z.enum(standings),
});
export type Item = z.infer<typeof itemSchema>;

export const emptyItemFields = Object.fromEntries(
  itemFieldIds.filter((id) => id !== 'sku').map((id) => [id, itemFieldEntries[id].empty]),
) as Omit<ItemFields, 'sku'>; // each entry's empty value is one of its own schema
