import { z } from 'zod';
import { share } from '../../measure/money';
import { bounds, positive, sayBounds, within } from './amounts';
import { defineVerb } from './verb';

/** The price that such things sold for lately, or a part of it; what has no comparable sales stays as it is, and says so. */
export const followSalesVerb = defineVerb({
  name: 'follow-sales',
  label: 'Follow comparable sales',
  kinds: ['money'],
  fields: ['price'],
  schema: z
    .object({
      verb: z.literal('follow-sales'),
      /** Basis points of the median: 9500 is five per cent below it. */
      basisPoints: z.number().int().min(1_000).max(30_000).default(10_000),
      days: z.number().int().min(7).max(1_000).default(180),
      /** So many sales there must be. */
      least: z.number().int().min(1).max(100).default(3),
      ...bounds,
    })
    .strict(),
  apply(args, _value, context) {
    const { basisPoints, days, least } = args;
    const found = context.sold?.(days) ?? null;
    const count = found?.count ?? 0;
    if (!found || count < least)
      return { refused: `Only ${count} comparable ${count === 1 ? 'sale' : 'sales'} in ${days} days` };
    const wanted = share(found.median, basisPoints);
    return positive(wanted, within(wanted, args, null), context);
  },
  say: (args) => `at ${args.basisPoints / 100} % of what such things sold for in ${args.days} days${sayBounds(args)}`,
});
