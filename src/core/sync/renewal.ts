import { z } from 'zod';

/** Which listings are ended and made anew by themselves, and how many a day. */
export const renewalRuleSchema = z
  .object({
    on: z.boolean(),
    /** At least so many days old. */
    minDays: z.number().int().min(1).max(365),
    mostPerDay: z.number().int().min(1).max(10_000),
    /** Only those that the marketplace would renew (and charge for) within so many days; null for all. */
    withinDays: z.number().int().min(1).max(365).nullable(),
  })
  .strict();
export type RenewalRule = z.infer<typeof renewalRuleSchema>;
export const noRenewal: RenewalRule = { on: false, minDays: 20, mostPerDay: 10, withinDays: null };

/** What is known of a live listing when its renewal is thought about. */
export type RenewalFacts = {
  state: 'live' | 'review' | 'elsewhere';
  liveSince: Date | null;
  renewsAt: Date | null;
  offersOpen: number;
  quantity: number;
  busy: boolean;
};

export type RenewalVerdict = { due: boolean; blocks: string | null; days: number | null; daysToTheirs: number | null };

const dayMs = 86_400_000;

/**
 * Whether a listing may be ended and made anew, and what blocks it.
 * @returns `days` live so far and `daysToTheirs` until the marketplace renews it by itself, whole days
 */
export function renewalVerdict(
  facts: RenewalFacts,
  rule: Pick<RenewalRule, 'minDays' | 'withinDays'>,
  now: Date,
): RenewalVerdict {
  const days = facts.liveSince ? Math.floor((now.getTime() - facts.liveSince.getTime()) / dayMs) : null;
  const daysToTheirs = facts.renewsAt ? Math.floor((facts.renewsAt.getTime() - now.getTime()) / dayMs) : null;
  const blocks =
    facts.state === 'review'
      ? 'It is still in review'
      : facts.state !== 'live'
        ? 'It is not live there'
        : facts.quantity < 1
          ? 'It is sold out'
          : facts.offersOpen > 0
            ? `${facts.offersOpen} open ${facts.offersOpen === 1 ? 'offer' : 'offers'} there: it cannot be ended before they are settled`
            : facts.busy
              ? 'A change of it is on its way'
              : null;
  const oldEnough = days !== null && days >= rule.minDays;
  const inTime = rule.withinDays === null || (daysToTheirs !== null && daysToTheirs <= rule.withinDays);
  return { due: blocks === null && oldEnough && inTime, blocks, days, daysToTheirs };
}

/** Those first that the marketplace would charge for soonest, then the longest unrenewed. */
export const renewalOrder = (
  a: Pick<RenewalFacts, 'liveSince' | 'renewsAt'>,
  b: Pick<RenewalFacts, 'liveSince' | 'renewsAt'>,
): number =>
  (a.renewsAt?.getTime() ?? Number.MAX_SAFE_INTEGER) - (b.renewsAt?.getTime() ?? Number.MAX_SAFE_INTEGER) ||
  (a.liveSince?.getTime() ?? 0) - (b.liveSince?.getTime() ?? 0);
