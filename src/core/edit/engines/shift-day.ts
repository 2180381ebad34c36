import { addDays, format, isValid, parseISO } from 'date-fns';

/** A day (2026-11-23) so many days later, or earlier; null where it is none. */
export function shiftDay(day: string, days: number): string | null {
  const from = parseISO(day);
  return isValid(from) ? format(addDays(from, days), 'yyyy-MM-dd') : null;
}
