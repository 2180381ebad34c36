/** Pauses before the second, third and fourth attempt, growing. */
const pausesMs = [2_000, 15_000, 60_000];

/**
 * When to try again after `attempts` attempts that failed for a passing reason.
 * @param random 0 to 1, passed in; spreads retries by ±20 % so that they do not come all at once
 * @returns milliseconds to wait, or null when it is over
 */
export function retryPause(attempts: number, random: number, retryAfterMs = 0): number | null {
  const pause = pausesMs[attempts - 1];
  if (pause === undefined) return null;
  return Math.max(retryAfterMs, Math.round(pause * (0.8 + 0.4 * random)));
}
