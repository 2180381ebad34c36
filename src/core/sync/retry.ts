/** Pauses before the second, third and fourth attempt, growing. */
const pausesMs = [2_000, 15_000, 60_000];
const longestMs = 600_000;

/** Attempts after which something that never gives up is told to a person all the same. */
export const alarmAfter = 3;

/**
 * When to try again after `attempts` attempts that failed for a passing reason.
 * @param random 0 to 1, passed in; spreads retries by ±20 % so that they do not come all at once
 * @param forever ends and lowerings: as long as it takes, with pauses that grow up to ten minutes
 * @returns milliseconds to wait, or null when it is over
 */
export function retryPause(attempts: number, random: number, retryAfterMs = 0, forever = false): number | null {
  const known = pausesMs[attempts - 1];
  if (known === undefined && !forever) return null;
  const pause = known ?? Math.min(longestMs, 60_000 * 2 ** Math.min(10, attempts - pausesMs.length));
  return Math.max(retryAfterMs, Math.round(Math.min(longestMs, pause * (0.8 + 0.4 * random))));
}
