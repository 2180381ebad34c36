/** Units of one age in whole days: so many were sold at it, so many were last seen at it (they are here still, or went away unsold). */
export type AtAge = { day: number; sold: number; left: number };

export type SurvivalPoint = {
  day: number;
  /** The share that is not sold after so many days, and the bounds between which it lies with 95 of 100. */
  unsold: number;
  least: number;
  most: number;
  /** Units that were looked at on this day. */
  atRisk: number;
};

/** z for 95 of 100. */
const z95 = 1.959963984540054;

/**
 * How long things stand until they are sold, where some have not sold yet: the estimator of Kaplan and Meier, with Greenwood's
 * variance. Bounds on the log-minus-log scale, so that they stay between nothing and all.
 * @param ages units by age, in any order
 * @returns a point for each day on which something was sold, with one for the beginning
 * Source: Kaplan, Meier (1958), J. Am. Stat. Assoc. 53; Kalbfleisch, Prentice, The Statistical Analysis of Failure Time Data, 1.4.
 */
export function survivalOf(ages: readonly AtAge[]): SurvivalPoint[] {
  const days = [...ages].sort((a, b) => a.day - b.day);
  let atRisk = days.reduce((sum, one) => sum + one.sold + one.left, 0);
  const points: SurvivalPoint[] = [{ day: 0, unsold: 1, least: 1, most: 1, atRisk }];
  let unsold = 1;
  let variance = 0;
  for (let at = 0; at < days.length; ) {
    const day = days[at]?.day ?? 0;
    let sold = 0;
    let left = 0;
    for (; days[at]?.day === day; at++) {
      sold += days[at]?.sold ?? 0;
      left += days[at]?.left ?? 0;
    }
    if (sold > 0) {
      unsold *= 1 - sold / atRisk;
      variance += sold < atRisk ? sold / (atRisk * (atRisk - sold)) : 0;
      points.push({ day, unsold, ...bounds(unsold, variance), atRisk });
    }
    atRisk -= sold + left;
  }
  return points;
}

function bounds(unsold: number, variance: number): { least: number; most: number } {
  if (unsold <= 0 || unsold >= 1) return { least: unsold, most: unsold };
  const spread = Math.exp((z95 * Math.sqrt(variance)) / Math.abs(Math.log(unsold)));
  return { least: unsold ** spread, most: unsold ** (1 / spread) };
}

/** After how many days half of it is sold; null where more than half has not sold as far as one can see. */
export const medianDays = (points: readonly SurvivalPoint[]): number | null =>
  points.find((one) => one.unsold <= 0.5)?.day ?? null;

/** The share that is sold after so many days. */
export function soldBy(points: readonly SurvivalPoint[], day: number): number {
  let unsold = 1;
  for (const point of points) {
    if (point.day > day) break;
    unsold = point.unsold;
  }
  return 1 - unsold;
}
