import { formatMoney } from '@/core/measure/money';

export function Price({
  amount,
  currency = 'EUR',
  tone = false,
}: {
  amount: number | null;
  currency?: string;
  tone?: boolean;
}) {
  if (amount === null) return <span className="quiet">–</span>;
  return (
    <span className={`figures ${tone && amount < 0 ? 'font-semibold text-error' : ''}`}>
      {formatMoney(amount, currency)}
    </span>
  );
}

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

/** A time relative to now, the exact one on hover. */
export function When({ at }: { at: string }) {
  const date = new Date(at);
  return (
    <time dateTime={at} title={exact.format(date)} suppressHydrationWarning>
      {distance(date, new Date())}
    </time>
  );
}

export function duration(seconds: number): string {
  if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s`;
  if (seconds < 3_600) return `${Math.round(seconds / 60)} min`;
  return `${Math.floor(seconds / 3_600)} h ${Math.round((seconds % 3_600) / 60)} min`;
}
