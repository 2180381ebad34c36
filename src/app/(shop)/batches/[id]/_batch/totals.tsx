import { formatMoney, homeCurrency } from '@/core/measure/money';
import type { BatchView } from '@/services/intake/find-batch';
import { useAccounts } from '@/ui/data/accounts';
import { useSells } from '@/ui/data/me';

const money = (amount: number) => formatMoney(amount, homeCurrency);

type Figure = [string, string, string?];

/** What it cost and what would be left: for those who buy and sell. */
const moneyOf = (totals: BatchView['totals'], accountOf: ReturnType<typeof useAccounts>['accountOf']): Figure[] => [
  ['Cost', money(totals.cost), totals.withoutCost ? `${totals.withoutCost} without a cost` : undefined],
  [
    'Expected net',
    totals.best ? money(totals.best.net) : '–',
    totals.best ? `all on ${accountOf(totals.best.accountId)?.name ?? 'one account'}` : 'once there are prices',
  ],
  ['Each where most is left', totals.best ? money(totals.bestEach) : '–'],
];

/** What a batch comes to as it stands: units, cost, what would be left, what is missing. */
export function Totals({ totals }: { totals: BatchView['totals'] }) {
  const { accountOf } = useAccounts();
  const sells = useSells();
  const figures: Figure[] = [
    [
      'Units',
      totals.units.toLocaleString('en'),
      totals.pieces === 1 ? 'in one piece' : `in ${totals.pieces.toLocaleString('en')} pieces`,
    ],
    ...(sells ? moneyOf(totals, accountOf) : []),
  ];
  return (
    <dl aria-label="Totals" className="flex flex-wrap gap-x-6 gap-y-1 border-b border-base-300 px-4 py-1.5">
      {figures.map(([what, figure, more]) => (
        <div key={what} className="flex items-baseline gap-2">
          <dt className="quiet text-[12px]">{what}</dt>
          <dd className="figures font-semibold">
            {figure}
            {more ? <span className="quiet ml-1 text-[12px] font-normal">{more}</span> : null}
          </dd>
        </div>
      ))}
      <div className="flex items-baseline gap-2">
        <dt className="quiet text-[12px]">Missing</dt>
        <dd className="text-[12px]">
          {totals.missing.length || totals.open ? (
            <span className="text-warning">
              {[
                ...(totals.open ? [`${totals.open} ${totals.open === 1 ? 'scan waits' : 'scans wait'} for you`] : []),
                ...totals.missing.map((one) => `${one.what}: ${one.count}`),
              ].join(', ')}
            </span>
          ) : (
            'nothing'
          )}
        </dd>
      </div>
      {totals.nets.length > 1 ? (
        <details className="w-full text-[12px]">
          <summary className="quiet cursor-pointer">Expected net on each account</summary>
          <ul className="mt-1 flex flex-wrap gap-x-4">
            {totals.nets.map((one) => (
              <li key={one.accountId}>
                {accountOf(one.accountId)?.name ?? ''} <span className="figures">{money(one.net)}</span>
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </dl>
  );
}
