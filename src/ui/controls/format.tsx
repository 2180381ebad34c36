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

export function duration(seconds: number): string {
  if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s`;
  if (seconds < 3_600) return `${Math.round(seconds / 60)} min`;
  return `${Math.floor(seconds / 3_600)} h ${Math.round((seconds % 3_600) / 60)} min`;
}
