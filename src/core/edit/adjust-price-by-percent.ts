import { z } from 'zod';
import { share } from '../measure/money';
import { roundings, roundTo } from '../measure/rounding';
import { type EditableItem, type Outcome, priced } from './outcome';
import { roundingOption } from './rounding-option';

const schema = z.object({
  op: z.literal('price-percent'),
  /** Basis points: −500 lowers by 5 %. */
  basisPoints: z.number().int().min(-9_900).max(100_000),
  ...roundingOption,
});

export const adjustPriceByPercent = {
  name: 'price-percent',
  label: 'Change price by percent',
  schema,
  apply(step: z.infer<typeof schema>, item: EditableItem): Outcome {
    if (item.price === null) return { kind: 'refused', why: 'It has no price to change' };
    const rounded = roundTo(item.price + share(item.price, step.basisPoints), roundings[step.rounding]);
    // A cut never ends above the old price, nor a rise below it, because of rounding.
    const sane = step.basisPoints < 0 ? Math.min(rounded, item.price) : Math.max(rounded, item.price);
    return priced(item, Math.max(sane, step.floor === null ? 0 : Math.min(step.floor, item.price)));
  },
} as const;
