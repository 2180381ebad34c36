import type { IntakeSettings } from './settings';

/** What a piece would bring: the net of the account where most is left, and how fast such things go. Minor units, days. */
export type Worth = { net: number | null; cost: number | null; days: number | null };

/**
 * Why a piece is better left lying, in words, by the limits that a person has set; null when it is worth taking, or when
 * what the limit asks about is not known.
 */
export function whyLeave(
  { net, cost, days }: Worth,
  limits: Pick<IntakeSettings, 'leastNet' | 'leastReturn' | 'mostDays'>,
  say: (amount: number) => string,
): string | null {
  const { leastNet, leastReturn, mostDays } = limits;
  if (leastNet !== null && net !== null && net < leastNet)
    return `${say(net)} would be left, less than ${say(leastNet)}`;
  if (leastReturn !== null && net !== null && cost !== null && cost > 0 && net * 100 < cost * leastReturn)
    return `${Math.floor((net * 100) / cost)} % of its cost would be left, less than ${leastReturn} %`;
  if (mostDays !== null && days !== null && days > mostDays)
    return `such things stand ${days} days, longer than ${mostDays}`;
  return null;
}
