import { formatMoney } from '@/core/measure/money';
import type { AccountView } from '@/services/accounts/find-accounts';

const percent = (basisPoints: number) => `${basisPoints / 100} %`;

/** What selling costs there and how fast it may be used, in words, from the rules as data. */
export function Fees({ account }: { account: AccountView }) {
  const { fees, currency, pacing } = account;
  const money = (minor: number) => formatMoney(minor, currency);
  const lines: [string, string][] = [];
  const rates = Object.values(fees.commissionByCategory);
  const commission = fees.commission
    .map((step, index) => `${percent(step.rate)}${step.upTo ? ` to ${money(step.upTo)}` : index ? ' above' : ''}`)
    .join(', ');
  lines.push(['Commission', fees.commission.every((step) => step.rate === 0) ? 'none' : commission]);
  if (rates.length) lines.push(['By category', `${percent(Math.min(...rates))} to ${percent(Math.max(...rates))}`]);
  if (fees.least) lines.push(['At least', money(fees.least)]);
  if (fees.when)
    lines.push(['Only when', `${fees.when.field.replace('extra.', '')} is ${fees.when.values.join(' or ')}`]);
  if (fees.payment.rate || fees.payment.fixed)
    lines.push(['Payment', `${percent(fees.payment.rate)} + ${money(fees.payment.fixed)}`]);
  if (fees.listing)
    lines.push([
      'Each listing',
      `${money(fees.listing.amount)}${fees.listing.freeLive ? `, the first ${fees.listing.freeLive} live ones free` : ''}${fees.listing.perDays ? `, every ${fees.listing.perDays} days` : ''}`,
    ]);
  if (fees.monthly) lines.push(['A month', money(fees.monthly)]);
  for (const tier of fees.handling?.tiers ?? []) lines.push([`Sent by them: ${tier.label}`, money(tier.amount)]);
  if (fees.handling) lines.push(['Storage', `${money(fees.handling.storagePerLitreMonth)} a litre and month`]);
  for (const [product, amount] of Object.entries(fees.bases?.amounts ?? {}))
    lines.push([`Base price, ${product}`, money(amount)]);
  for (const label of fees.labels) lines.push([`Label ${label.label.toLowerCase()}`, money(label.amount)]);
  return (
    <section aria-labelledby="fees" className="p-4">
      <h2 id="fees" className="mb-2 font-semibold">
        Fees and pace
      </h2>
      <dl className="grid grid-cols-[minmax(6.5rem,auto)_minmax(0,1fr)] gap-x-4 gap-y-1 text-[13px]">
        {lines.map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="quiet">{label}</dt>
            <dd className="figures text-right">{value}</dd>
          </div>
        ))}
        <dt className="quiet">Requests</dt>
        <dd className="figures text-right">{pacing.perMinute.toLocaleString('en')} a minute</dd>
        <dt className="quiet">New listings</dt>
        <dd className="figures text-right">{pacing.newPerDay.toLocaleString('en')} a day</dd>
      </dl>
    </section>
  );
}
