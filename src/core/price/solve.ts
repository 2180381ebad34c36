import { type Rounding, roundTo } from '../measure/rounding';
import { type Net, type NetInput, netOf } from './net';

export type PriceGoal =
  | { kind: 'net'; amount: number }
  | { kind: 'margin'; basisPoints: number }
  | { kind: 'return'; basisPoints: number };

/** Whether a net is as much as is wanted, in the currency of the net. */
export const reaches = (net: Net, goal: PriceGoal): boolean => {
  switch (goal.kind) {
    case 'net':
      return net.net >= goal.amount;
    case 'margin':
      // Compared without the rounded quotient, so that 29.996 % does not pass for 30 %.
      return net.net * 10_000 >= goal.basisPoints * net.price;
    case 'return':
      return net.net * 10_000 >= goal.basisPoints * net.cost;
  }
};

/**
 * The lowest price with the wanted ending, not under the floor, that reaches the goal.
 * Net rises with price except for steps of a minor unit where a fee is rounded, so a bisection finds the
 * neighbourhood and a short walk down and up settles the exact step.
 * @returns minor units, or null when no price up to `ceiling` reaches it
 */
export function priceFor(
  input: Omit<NetInput, 'price'>,
  goal: PriceGoal,
  rounding: Rounding,
  floor = 0,
  ceiling = 10_000_000_00,
): number | null {
  const up: Rounding = { ...rounding, direction: 'up' };
  const reached = (price: number) => reaches(netOf({ ...input, price }), goal);
  const first = roundTo(Math.max(floor, 1), up);
  if (reached(first)) return first;
  let low = first;
  let high = roundTo(ceiling, { ...rounding, direction: 'down' });
  if (!reached(high)) return null;
  while (high - low > rounding.step) {
    const middle = roundTo(low + Math.floor((high - low) / 2), { ...rounding, direction: 'down' });
    const probe = middle <= low ? low + rounding.step : middle;
    if (reached(probe)) high = probe;
    else low = probe;
  }
  while (high - rounding.step >= first && reached(high - rounding.step)) high -= rounding.step;
  return high;
}
