export const shareWays = ['number', 'weight', 'price', 'hand'] as const;
/** By what the cost of a whole batch is shared out over its pieces. */
export type ShareWay = (typeof shareWays)[number];

/** What one line of a batch weighs in the sharing. Grams and minor units are of one piece. */
export type Sharing = {
  units: number;
  weightGrams: number | null;
  price: number | null;
  /** Said by a person for the whole line, in minor units. */
  byHand: number | null;
};

function weightOf(one: Sharing, by: ShareWay): number {
  switch (by) {
    case 'weight':
      return one.units * (one.weightGrams ?? 0);
    case 'price':
      return one.units * (one.price ?? 0);
    default:
      return one.units;
  }
}

/** A whole amount in these proportions, to the minor unit; the largest remainders get what is left over, the first of equal ones first. */
function split(total: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((all, one) => all + BigInt(one), 0n);
  if (sum === 0n) return weights.map(() => 0);
  const parts = weights.map((weight, index) => {
    const exact = BigInt(total) * BigInt(weight);
    return { index, whole: Number(exact / sum), rest: exact % sum };
  });
  let left = total - parts.reduce((all, one) => all + one.whole, 0);
  const shares = parts.map((one) => one.whole);
  for (const { index } of [...parts].sort((a, b) => (a.rest < b.rest ? 1 : a.rest > b.rest ? -1 : a.index - b.index))) {
    if (left === 0) break;
    shares[index] = (shares[index] ?? 0) + 1;
    left--;
  }
  return shares;
}

/**
 * What each line bears of what the whole batch cost: the shares add up to it, to the cent. Where nothing is known to share
 * by (no weights, no prices) they are shared by number. By hand: what was said stands, the others bear the rest by number.
 * @param total minor units, not below zero
 * @returns one share a line, in minor units; all null when what was said by hand comes to more than the total, or to less
 * and nobody is left to bear the rest
 */
export function shareCost(total: number, lines: readonly Sharing[], by: ShareWay): number[] | null {
  if (by !== 'hand') {
    const weights = lines.map((one) => weightOf(one, by));
    return split(total, weights.some((one) => one > 0) ? weights : lines.map((one) => one.units));
  }
  const said = lines.reduce((sum, one) => sum + (one.byHand ?? 0), 0);
  const open = lines.map((one) => (one.byHand === null ? one.units : 0));
  if (said > total || (said < total && open.every((units) => units === 0))) return null;
  const rest = split(total - said, open);
  return lines.map((one, index) => one.byHand ?? rest[index] ?? 0);
}

/**
 * What a piece has cost after more of the same came in: the mean of all, weighted by units, rounded half up.
 * @returns minor units a piece; the new ones' alone where it was not known before
 */
export function meanCost(
  before: { units: number; cost: number | null },
  added: { units: number; total: number },
): number {
  const there = before.cost === null ? 0 : Math.max(0, before.units);
  const units = there + added.units;
  if (units === 0) return before.cost ?? 0;
  return Math.floor((there * (before.cost ?? 0) + added.total) / units + 0.5);
}
