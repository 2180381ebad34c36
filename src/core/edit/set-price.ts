import { z } from 'zod';
import { type EditableItem, type Outcome, priced } from './outcome';

const schema = z.object({ op: z.literal('price-set'), amount: z.number().int().min(1).max(100_000_000_00) });

export const setPrice = {
  name: 'price-set',
  label: 'Set price',
  schema,
  apply: (step: z.infer<typeof schema>, item: EditableItem): Outcome => priced(item, step.amount),
} as const;
