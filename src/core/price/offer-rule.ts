import { z } from 'zod';
import type { Net } from './net';
import { type PriceGoal, reaches } from './solve';

const goal = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('net'), amount: z.number().int().min(-10_000_000).max(100_000_000) }).strict(),
  z.object({ kind: z.literal('margin'), basisPoints: z.number().int().min(-10_000).max(10_000) }).strict(),
]);
export type OfferGoal = z.infer<typeof goal>;

/**
 * What is done with offers by itself: taken where at least so much is left, declined where less than so much is. A net is
 * an amount of the shop's own currency, a margin basis points of the price. What lies between waits for a person.
 */
export const offerRuleSchema = z
  .object({ acceptFrom: goal.nullable(), declineBelow: goal.nullable() })
  .strict()
  .refine(
    ({ acceptFrom: take, declineBelow: leave }) =>
      !take ||
      !leave ||
      take.kind !== leave.kind ||
      (take.kind === 'net' && leave.kind === 'net' ? take.amount >= leave.amount : true) ||
      (take.kind === 'margin' && leave.kind === 'margin' && take.basisPoints >= leave.basisPoints),
    { message: 'What is declined must lie below what is taken', path: ['declineBelow'] },
  );
export type OfferRule = z.infer<typeof offerRuleSchema>;
export const noOfferRule: OfferRule = { acceptFrom: null, declineBelow: null };

/**
 * What the rule says of an offer.
 * @param net what would be left at the offered price, in the account's currency
 * @param there an amount of the shop's own currency in the account's; null while no rate is known: then a person decides
 */
export function offerVerdict(
  net: Net,
  { acceptFrom, declineBelow }: OfferRule,
  there: (amount: number) => number | null,
): 'accept' | 'decline' | 'ask' {
  const goalThere = (one: OfferGoal): PriceGoal | null => {
    if (one.kind === 'margin') return one;
    const amount = there(one.amount);
    return amount === null ? null : { kind: 'net', amount };
  };
  const leave = declineBelow && goalThere(declineBelow);
  if (leave && !reaches(net, leave)) return 'decline';
  const take = acceptFrom && goalThere(acceptFrom);
  return take && reaches(net, take) ? 'accept' : 'ask';
}
