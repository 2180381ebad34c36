import { z } from 'zod';
import { stepSchema } from '../../../core/edit';
import { selectionSchema } from '../../records/items/selection';

export const editSchema = z.object({ selection: selectionSchema, steps: z.array(stepSchema).min(1).max(20) }).strict();

export type Edit = z.infer<typeof editSchema>;

export const previewEditSchema = editSchema
  .extend({ account: z.number().int().optional().describe('As this account will get it, in place of the item itself') })
  .strict();
export type PreviewEdit = z.infer<typeof previewEditSchema>;
