import { z } from 'zod';
import { labelKindSchema } from './label';

/** What labels are asked for, and how. */
export const labelRequestSchema = z
  .object({
    kind: labelKindSchema,
    /** The id of a size. */
    size: z.string().min(1).max(40),
    /** Items by their numbers, a batch with all its pieces, or places as they are written. */
    items: z.array(z.number().int().positive()).max(5_000).default([]),
    batch: z.number().int().positive().nullable().default(null),
    places: z.array(z.string().trim().min(1).max(60)).max(1_000).default([]),
    /** What the code says: the stock number, the barcode, or the number there. */
    code: z.union([z.literal('sku'), z.literal('barcode'), z.number().int().positive()]).default('sku'),
    /** One label a unit in stock, or so many a piece. */
    copies: z.union([z.literal('units'), z.number().int().min(1).max(100)]).default(1),
    /** The first free label of the sheet, from 1. */
    startAt: z.number().int().min(1).max(800).default(1),
    prefers: z.enum(['linear', 'square']).default('linear'),
  })
  .strict();
export type LabelRequest = z.output<typeof labelRequestSchema>;

export const mostLabels = 5_000;
