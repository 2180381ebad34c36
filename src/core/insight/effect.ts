/** Of units that are alike: pieces sold, and days on which a unit lay for sale, before something was done and after it. */
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

/** Ages are compared within these, in days. */
const ages = [0, 30, 90, 180, 365, Number.POSITIVE_INFINITY] as const;
/** Only so many days after it count: what comes later has other reasons. */
export const afterDays = 60;

/** A unit's time on offer: how many days, whether it was sold then, and on which of them something was done; null for never. */
export type OnOffer = { alike: string; units: number; days: number; isSold: boolean; doneOn: number | null };

/**
 * Pieces sold and days on offer, before and after something was done, of what is alike and of the same age. The day itself counts
 * half, so that what is sold on its first day has been on offer.
 */
export function exposuresOf(offers: readonly OnOffer[]): Exposure[] {
  const found = new Map<string, Exposure[]>();
  for (const { alike, units, days: whole, isSold, doneOn } of offers) {
    let bands = found.get(alike);
    if (!bands) {
      bands = ages.slice(1).map(() => ({ soldBefore: 0, daysBefore: 0, soldAfter: 0, daysAfter: 0 }));
      found.set(alike, bands);
    }
    const days = whole + 0.5;
    const turn = doneOn === null ? days : Math.min(days, doneOn);
    const end = doneOn === null ? days : Math.min(days, doneOn + afterDays);
    for (let at = 0; at < bands.length; at++) {
      const band = bands[at];
      const [from, to] = [ages[at] ?? 0, ages[at + 1] ?? 0];
      if (!band || from > days) break;
      band.daysBefore += units * Math.max(0, Math.min(turn, to) - from);
      if (doneOn !== null) band.daysAfter += units * Math.max(0, Math.min(end, to) - Math.max(doneOn, from));
      if (!isSold || days < from || days >= to) continue;
      if (doneOn === null || days < doneOn) band.soldBefore += units;
      else if (days < doneOn + afterDays) band.soldAfter += units;
    }
  }
  return [...found.values()].flat();
}
