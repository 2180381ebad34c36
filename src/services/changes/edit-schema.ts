import { z } from 'zod';
import { stepSchema } from '../../core/edit';
import { selectionSchema } from '../records/selection';

export const editSchema = z.object({ selection: selectionSchema, steps: z.array(stepSchema).min(1).max(20) }).strict();

export type Edit = z.infer<typeof editSchema>;
