import { z } from 'zod';
import { selectionSchema } from '../records/selection';

export const publishSchema = z
  .object({
    selection: selectionSchema,
    accounts: z.array(z.number().int().positive()).min(1, 'Choose at least one marketplace').max(50),
    /** Knots (item × account) that are to be left out. */
    without: z
      .array(z.object({ itemId: z.number().int(), accountId: z.number().int() }))
      .max(10_000)
      .default([]),
    /** Make them live, or only mean them for these accounts and send nothing yet. */
    as: z.enum(['live', 'draft']).default('live'),
  })
  .strict();

export type Publish = z.infer<typeof publishSchema>;
