'use client';

import { useSyncExternalStore } from 'react';

const units: [Intl.RelativeTimeFormatUnit, number][] = [
  ['year', 31_536_000],
  ['month', 2_592_000],
  ['day', 86_400],
  ['hour', 3_600],
  ['minute', 60],
  ['second', 1],
];
const relative = new Intl.RelativeTimeFormat('en');
// Made once: a list has hundreds of times.
const exact = new Intl.DateTimeFormat('en-GB', { dateStyle: 'short', timeStyle: 'medium' });

/** A time as seen from another: *3 hours ago*, *in 2 days*. */
function distance(at: Date, now: Date): string {
  const seconds = (at.getTime() - now.getTime()) / 1_000;
  const [unit, length] = units.find((one) => Math.abs(seconds) >= one[1]) ?? ['second', 1];
  return relative.format(Math.round(seconds / length), unit);
}

/** One clock for all times of a page: they grow old while one looks at them. */
const everyMs = 20_000;
const listeners = new Set<() => void>();
let ticks = 0;
let clock: ReturnType<typeof setInterval> | undefined;
function listen(heard: () => void): () => void {
  listeners.add(heard);
  clock ??= setInterval(() => {
    ticks++;
    for (const one of listeners) one();
  }, everyMs);
  return () => {
    listeners.delete(heard);
    if (listeners.size > 0) return;
    clearInterval(clock);
    clock = undefined;
  };
}

/** A time relative to now, the exact one on hover. */
export function When({ at }: { at: string }) {
  const date = new Date(at);
  useSyncExternalStore(
    listen,
    () => ticks,
    () => 0,
  );
  return (
    <time dateTime={at} title={exact.format(date)} suppressHydrationWarning>
      {distance(date, new Date())}
    </time>
  );
}
