/**
 * How a person likes prices to end. `ending` is the wanted last part in minor units within `step`:
 * .99 is step 100, ending 99; whole amounts are step 100, ending 0; .50 is step 50, ending 0; none is step 1.
 */
export type Rounding = { step: number; ending: number; direction: 'nearest' | 'up' | 'down' };

export const roundings = {
  none: { step: 1, ending: 0, direction: 'nearest' },
  whole: { step: 100, ending: 0, direction: 'nearest' },
  half: { step: 50, ending: 0, direction: 'nearest' },
  ninetyNine: { step: 100, ending: 99, direction: 'nearest' },
  ninety: { step: 100, ending: 90, direction: 'nearest' },
} as const satisfies Record<string, Rounding>;

export type RoundingName = keyof typeof roundings;
export const roundingNames = Object.keys(roundings) as [RoundingName, ...RoundingName[]]; // never empty: the list above

/**
 * The amount nearest to `amount` (or the next above or below it) that ends as wanted.
 * Never below the smallest positive amount with that ending, so that rounding cannot make a thing free.
 * @param amount minor units
 * @returns minor units
 */
export function roundTo(amount: number, { step, ending, direction }: Rounding): number {
  const smallest = ending > 0 ? ending : step;
  const below = Math.floor((amount - ending) / step) * step + ending;
  const above = below === amount ? amount : below + step;
  const picked =
    direction === 'down' ? below : direction === 'up' ? above : amount - below < above - amount ? below : above;
  return Math.max(picked, smallest);
}
