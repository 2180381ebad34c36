/** Of units of one age: pieces sold, and days on which a unit lay for sale, before something was done and after it. */
export type Exposure = { soldBefore: number; daysBefore: number; soldAfter: number; daysAfter: number };

export type Effect = {
  /** How many times as many were sold a day afterwards. */
  ratio: number;
  /** Between which bounds it lies with 95 of 100. */
  least: number;
  most: number;
};

/** Fewer pieces than this, before or after, say nothing. */
export const leastSold = 10;

const z95 = 1.959963984540054;

/**
 * How many times as many are sold a day after something was done, compared with units of the same age of which it was not, or
 * not yet: the rate ratio of Mantel and Haenszel over groups of what is alike (the same category and age), its bounds by Greenland and Robins. Things that stand for
 * long sell more slowly anyhow; that is why only the same age is compared.
 * @returns null where fewer than `leastSold` pieces were sold before or after: then the numbers say nothing
 * Source: Rothman, Greenland, Lash, Modern Epidemiology, 3rd ed., ch. 15 (person-time data).
 */
export function effectOf(bands: readonly Exposure[]): Effect | null {
  let [before, after, over, under, shared] = [0, 0, 0, 0, 0];
  for (const { soldBefore, daysBefore, soldAfter, daysAfter } of bands) {
    const days = daysBefore + daysAfter;
    if (daysBefore <= 0 || daysAfter <= 0) continue;
    before += soldBefore;
    after += soldAfter;
    over += (soldAfter * daysBefore) / days;
    under += (soldBefore * daysAfter) / days;
    shared += ((soldBefore + soldAfter) * daysBefore * daysAfter) / days ** 2;
  }
  if (before < leastSold || after < leastSold) return null;
  const ratio = over / under;
  const spread = Math.exp(z95 * Math.sqrt(shared / (over * under)));
  return { ratio, least: ratio / spread, most: ratio * spread };
}
