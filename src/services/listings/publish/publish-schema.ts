import { z } from 'zod';
import { selectionSchema } from '../../records/items/selection';

export const publishSchema = z
  .object({
    selection: selectionSchema,
    accounts: z.array(z.number().int().positive()).min(1, 'Choose at least one marketplace').max(50),
    /** Knots (item × account) that are to be left out. */
    without: z
      .array(z.object({ itemId: z.number().int(), accountId: z.number().int() }))
      .max(10_000)
      .default([]),
    leave: z
      .array(z.object({ account: z.number().int(), fields: z.array(z.string().max(80)).min(1).max(200) }).strict())
      .max(50)
      .optional()
      .describe('Of listings that are there already, fields that are left changed and not sent, account by account'),
    /** Make them live, or only mean them for these accounts and send nothing yet. */
    as: z.enum(['live', 'draft']).default('live'),
  })
  .strict();

export type Publish = z.infer<typeof publishSchema>;
