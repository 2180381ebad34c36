import { z } from 'zod';
import { type EditableItem, type Outcome, stocked } from './outcome';

const schema = z.object({ op: z.literal('quantity-add'), delta: z.number().int().min(-1_000_000).max(1_000_000) });

export const adjustQuantity = {
  name: 'quantity-add',
  label: 'Add to stock',
  schema,
  apply(step: z.infer<typeof schema>, item: EditableItem): Outcome {
    const quantity = item.quantity + step.delta;
    if (quantity < 0)
      return { kind: 'refused', why: `Only ${item.quantity} in stock, ${-step.delta} cannot be taken away` };
    return stocked(item, quantity);
  },
} as const;
