import { z } from 'zod';

/** How fast one account may be used: what the marketplace allows, and what its seller wants below that. */
export const ownPaceSchema = z
  .object({
    /** Requests a minute; never above what the marketplace allows. */
    perMinute: z.number().int().min(1).max(100_000).nullable(),
    /** New listings a day; never above what the marketplace allows. */
    newPerDay: z.number().int().min(1).max(1_000_000).nullable(),
    /** New listings are made evenly over the day instead of one after the other. */
    spread: z.boolean(),
    /** A new shop begins with a tenth of the daily number and reaches the whole within two weeks of this day. */
    slowStartFrom: z.iso.date().nullable(),
  })
  .strict();
export type OwnPace = z.infer<typeof ownPaceSchema>;
export const fullPace: OwnPace = { perMinute: null, newPerDay: null, spread: false, slowStartFrom: null };

export type Allowed = { perMinute: number; newPerDay: number };
export type Pace = { perMinute: number; newToday: number; spread: boolean };

const dayMs = 86_400_000;
const slowDays = 14;
const leastAtStart = 3;

/** The part of the daily number that a shop may use on its n-th day (0 is the first): a tenth at first, then evenly more. */
const slowShare = (day: number): number => (day >= slowDays ? 1 : 0.1 + (0.9 * Math.max(0, day)) / slowDays);

/** The pace that holds on a day: the lower of both sides, less while the shop is new. */
export function paceOn(allowed: Allowed, own: OwnPace, now: Date): Pace {
  const newPerDay = Math.min(allowed.newPerDay, own.newPerDay ?? allowed.newPerDay);
  const age = own.slowStartFrom
    ? Math.floor((now.getTime() - Date.parse(own.slowStartFrom)) / dayMs)
    : Number.POSITIVE_INFINITY;
  const slow = Math.max(leastAtStart, Math.floor(newPerDay * slowShare(age)));
  return {
    perMinute: Math.min(allowed.perMinute, own.perMinute ?? allowed.perMinute),
    newToday: Math.min(newPerDay, slow),
    spread: own.spread,
  };
}

/**
 * When the next new listing may be made.
 * @param made how many were made today, by the marketplace's clock, and when the last one was
 * @param tomorrow when its next day begins
 * @returns milliseconds to wait; 0 means now
 */
export function waitForNew(pace: Pace, made: { today: number; last: Date | null }, now: Date, tomorrow: Date): number {
  // A few seconds into it: clocks run a little apart.
  if (made.today >= pace.newToday) return tomorrow.getTime() + 5_000 - now.getTime();
  if (!pace.spread || !made.last) return 0;
  return Math.max(0, made.last.getTime() + dayMs / pace.newToday - now.getTime());
}

/** Requests that one piece of work takes on average: a new listing brings its photos along. */
export const requestsOf = { create: 2, update: 1, end: 1, renew: 3 } as const;
export type Work = { [K in keyof typeof requestsOf]: number };

/**
 * How long a piece of work takes at a pace.
 * @returns whole seconds; work that the daily number puts off counts its days
 */
export function secondsFor(work: Work, pace: Pace, madeToday = 0): number {
  const requests =
    work.create * requestsOf.create +
    work.update * requestsOf.update +
    work.end * requestsOf.end +
    work.renew * requestsOf.renew;
  const bySending = (requests * 60) / pace.perMinute;
  const fresh = work.create + work.renew;
  const leftToday = Math.max(0, pace.newToday - madeToday);
  if (pace.spread) return Math.ceil(Math.max(bySending, (fresh * 86_400) / pace.newToday));
  const daysLater = fresh > leftToday ? Math.ceil((fresh - leftToday) / pace.newToday) : 0;
  return Math.ceil(bySending + daysLater * 86_400);
}

export const daysSchema = z.array(z.object({ on: z.iso.date(), count: z.number() }));
/** New listings by the day on which they are made. */
export type Days = z.infer<typeof daysSchema>;

const mostDays = 400;

/**
 * On which days new listings are made, so many a day; the first is today where the day has room left.
 * @param today the day it is there, as YYYY-MM-DD
 */
export function daysOf(fresh: number, pace: Pick<Pace, 'newToday'>, madeToday: number, today: string): Days {
  const days: Days = [];
  let left = fresh;
  for (let day = 0; left > 0 && day < mostDays; day++) {
    const room = day === 0 ? Math.max(0, pace.newToday - madeToday) : pace.newToday;
    const count = Math.min(left, room);
    left -= count;
    if (count > 0) days.push({ on: new Date(Date.parse(today) + day * dayMs).toISOString().slice(0, 10), count });
  }
  return days;
}
