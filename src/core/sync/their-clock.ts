/**
 * How far a marketplace's clock is ahead of ours, in milliseconds; how far it was before it was set anew, and when that was
 * heard. A marketplace counts its days by its own clock.
 */
export type TheirClock = { aheadMs: number; beforeMs: number; changedAt: Date | null };

const dayMs = 86_400_000;
/** Less than this is the way of the answer, and clocks that run a little apart. */
const slackMs = 300_000;

/** The clock as it is by what they say the time is; null where it is as it was known. */
export function heardClock(known: TheirClock, theirs: Date, now: Date): TheirClock | null {
  const aheadMs = theirs.getTime() - now.getTime();
  if (Math.abs(aheadMs - known.aheadMs) < slackMs) return null;
  return { aheadMs, beforeMs: known.aheadMs, changedAt: now };
}

/** When the day (UTC) that it is there began, by our clock. A midnight that was passed over began when they were set anew. */
export function theirDayBegan({ aheadMs, beforeMs, changedAt }: TheirClock, now: Date): Date {
  const theirs = now.getTime() + aheadMs;
  const midnight = theirs - (((theirs % dayMs) + dayMs) % dayMs);
  const began = midnight - aheadMs;
  if (!changedAt || began >= changedAt.getTime()) return new Date(began);
  const atChange = changedAt.getTime() + beforeMs;
  return midnight > atChange ? changedAt : new Date(midnight - beforeMs);
}

/** When the next day begins there, by our clock. */
export const theirTomorrow = ({ aheadMs }: TheirClock, now: Date): Date => {
  const theirs = now.getTime() + aheadMs;
  return new Date(theirs - (((theirs % dayMs) + dayMs) % dayMs) + dayMs - aheadMs);
};
