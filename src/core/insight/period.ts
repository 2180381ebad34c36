/** Days, first and last, both meant; as `2026-11-28`, UTC. */
export type Period = { from: string; to: string };

export const comparisons = ['before', 'year', 'none'] as const;
export type Comparison = (typeof comparisons)[number];

const dayMs = 86_400_000;
const asDay = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
const atDay = (day: string): number => Date.parse(`${day}T00:00:00Z`);

export const daysIn = ({ from, to }: Period): number => Math.round((atDay(to) - atDay(from)) / dayMs) + 1;

/** So many days, the last of them the given one. */
export const lastDays = (days: number, to: string): Period => ({ from: asDay(atDay(to) - (days - 1) * dayMs), to });

/** The same day a year before; the 29th of February becomes the 28th. */
function yearBefore(day: string): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const last = new Date(Date.UTC(year - 1, month, 0)).getUTCDate();
  return asDay(Date.UTC(year - 1, month - 1, Math.min(date, last)));
}

/** What a period is compared with: as many days right before it, the same days a year ago, or nothing. */
export function comparedWith(period: Period, how: Comparison): Period | null {
  if (how === 'none') return null;
  if (how === 'year') return { from: yearBefore(period.from), to: yearBefore(period.to) };
  return lastDays(daysIn(period), asDay(atDay(period.from) - dayMs));
}

/** The months that a period touches, as `2026-11`. */
export function monthsIn({ from, to }: Period): string[] {
  const months: string[] = [];
  let [year = 0, month = 1] = from.split('-').map(Number);
  for (let name = from.slice(0, 7); name <= to.slice(0, 7); ) {
    months.push(name);
    month += 1;
    if (month > 12) [year, month] = [year + 1, 1];
    name = `${year}-${String(month).padStart(2, '0')}`;
  }
  return months;
}
