import { type ShareWay, shareCost } from '../batch/share-cost';
import type { Counted } from './totals';

/** What each lot bears of what the sets have cost, to the cent: all of it over all lots that are not taken out. */
export function shareLots(
  { totalCost, shareBy }: { totalCost: number | null; shareBy: Exclude<ShareWay, 'hand'> },
  lots: readonly (Counted & { id: number })[],
): Map<number, number> {
  if (totalCost === null) return new Map();
  const bearing = lots.filter((lot) => lot.state !== 'out' && lot.quantity > 0);
  const shares = shareCost(
    totalCost,
    bearing.map(({ quantity, grams, price }) => ({ units: quantity, weightGrams: grams, price, byHand: null })),
    shareBy,
  );
  return new Map(bearing.map((lot, at) => [lot.id, shares?.[at] ?? 0]));
}
