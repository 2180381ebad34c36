import { z } from 'zod';
import { roundings, roundTo } from '../measure/rounding';
import { type EditableItem, type Outcome, priced } from './outcome';
import { roundingOption } from './rounding-option';

const schema = z.object({
  op: z.literal('price-amount'),
  /** Minor units, negative to lower. */
  amount: z.number().int().min(-1_000_000_00).max(1_000_000_00),
  ...roundingOption,
});

export const adjustPriceByAmount = {
  name: 'price-amount',
  label: 'Change price by an amount',
  schema,
  apply(step: z.infer<typeof schema>, item: EditableItem): Outcome {
    if (item.price === null) return { kind: 'refused', why: 'It has no price to change' };
    if (item.price + step.amount <= 0) return { kind: 'refused', why: 'The price would be zero or less' };
    const rounded = roundTo(item.price + step.amount, roundings[step.rounding]);
    const sane = step.amount < 0 ? Math.min(rounded, item.price) : Math.max(rounded, item.price);
    return priced(item, Math.max(sane, step.floor === null ? 0 : Math.min(step.floor, item.price)));
  },
} as const;
