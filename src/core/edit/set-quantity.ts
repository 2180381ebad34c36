import { z } from 'zod';
import { type EditableItem, type Outcome, stocked } from './outcome';

const schema = z.object({ op: z.literal('quantity-set'), quantity: z.number().int().min(0).max(1_000_000) });

export const setQuantity = {
  name: 'quantity-set',
  label: 'Set stock to',
  schema,
  apply: (step: z.infer<typeof schema>, item: EditableItem): Outcome => stocked(item, step.quantity),
} as const;
