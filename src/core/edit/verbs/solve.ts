import { z } from 'zod';
import { amountToText, homeCurrency } from '../../measure/money';
import { type RoundingName, roundingNames } from '../../measure/rounding';
import { inField, sayBounds } from './amounts';
import { defineVerb } from './verb';
import type { WantedNet } from './wanted-net';

const inPercent = (basisPoints: number) => `${basisPoints / 100} %`;

const wanted = ({
  goal,
  amount,
  basisPoints,
}: {
  goal: WantedNet['kind'];
  amount: number | null;
  basisPoints: number | null;
}): WantedNet =>
  goal === 'net' ? { kind: 'net', amount: amount ?? 0 } : { kind: goal, basisPoints: basisPoints ?? 0 };

export const goalLabels: Record<WantedNet['kind'], string> = {
  net: 'Net of',
  margin: 'Net as part of the price',
  return: 'Net as part of the cost',
};

export const solveVerb = defineVerb({
  name: 'solve',
  label: 'Price for a wanted net',
  kinds: ['money'],
  schema: z
    .object({
      verb: z.literal('solve'),
      goal: z.enum(['net', 'margin', 'return']),
      /** Of a net: in the shop's own currency. */
      amount: z.number().int().min(-100_000_000).max(100_000_000).nullable().default(null),
      /** Of a margin or a return. */
      basisPoints: z.number().int().min(-10_000).max(1_000_000).nullable().default(null),
      rounding: z.enum(roundingNames).default('none'),
      /** Never under it, in the shop's own currency. */
      floor: z.number().int().min(0).max(100_000_000_00).nullable().default(null),
    })
    .strict()
    .superRefine(({ goal, amount, basisPoints }, context) => {
      if (goal === 'net' && amount === null)
        context.addIssue({ code: 'custom', path: ['amount'], message: 'Type the net that is to be left' });
      if (goal !== 'net' && basisPoints === null)
        context.addIssue({ code: 'custom', path: ['basisPoints'], message: 'Type the percentage that is to be left' });
    }),
  apply(args, _value, context) {
    const { priceFor } = context;
    if (!priceFor) return { refused: 'A wanted net is reached account by account: choose accounts' };
    const [amount, floor] = [inField(args.amount, context), inField(args.floor, context)];
    if (amount === undefined || floor === undefined) return { refused: 'No exchange rate is known for it' };
    const price = priceFor(wanted({ ...args, amount }), args.rounding satisfies RoundingName, floor ?? 0);
    return price === null ? { refused: 'No price leaves that much there' } : { to: price };
  },
  say(args) {
    const goal = wanted(args);
    const left =
      goal.kind === 'net'
        ? `a net of ${amountToText(goal.amount, homeCurrency)}`
        : `${inPercent(goal.basisPoints)} of the ${goal.kind === 'margin' ? 'price' : 'cost'}`;
    return `so that ${left} is left${sayBounds({ ...args, ceiling: null })}`;
  },
});
