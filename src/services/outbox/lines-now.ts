import type { SummaryLine } from '../../core/summary';
import { findCauses } from './find-causes';
import { findNeeds } from './find-needs';

/** All that waits for a person and is not put off, a line a cause, what is urgent first. */
export async function linesNow(): Promise<SummaryLine[]> {
  const [causes, { needs }] = await Promise.all([findCauses(), findNeeds()]);
  const refused = causes.map(
    ({ accountName, message, fix, count }): SummaryLine => ({
      says: `${accountName}: ${message}`,
      mend: fix ?? 'See why',
      count,
      atStake: null,
      isUrgent: false,
    }),
  );
  const others = needs
    .filter((one) => !one.later)
    .map(({ says, mend, count, atStake, isUrgent }): SummaryLine => ({ says, mend, count, atStake, isUrgent }));
  return [...others.filter((one) => one.isUrgent), ...refused, ...others.filter((one) => !one.isUrgent)];
}

const freshMs = 30_000;
let known = { lines: 0, at: 0 };
let isLooking = false;

/** How many lines there are, as of some seconds ago: they are counted beside whoever asks, who does not wait for it. */
export function linesCount(): number {
  if (Date.now() - known.at > freshMs && !isLooking) {
    isLooking = true;
    void linesNow()
      .then((lines) => {
        known = { lines: lines.length, at: Date.now() };
      })
      .catch(() => undefined)
      .finally(() => {
        isLooking = false;
      });
  }
  return known.lines;
}

/** Something was put off or brought back: the next who asks has it counted anew. */
export function countAnew(): void {
  known = { ...known, at: Math.min(known.at, 1) };
}
