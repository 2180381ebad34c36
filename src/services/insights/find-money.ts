import {
  comparedWith,
  dayName,
  dayNumber,
  daysIn,
  type Facts,
  feesOfSums,
  type InsightColumn,
  type InsightTable,
  marginOf,
  monthName,
  monthsIn,
  noSums,
  type Period,
  returnOf,
  type SaleSums,
  salesIn,
  sumBy,
  sumOf,
} from '../../core/insight';
import { accountNames } from '../records/accounts/account-names';
import { type InsightQuery, narrowedTo, periodOf, scopeOf } from './query';

const mostDays = 45;

/** The columns of sums, so that each row adds up to its net. */
export const sumColumns: InsightColumn[] = [
  { id: 'pieces', head: 'Pieces', kind: 'count' },
  { id: 'taken', head: 'Taken', kind: 'money' },
  { id: 'fees', head: 'Fees', kind: 'money' },
  { id: 'postage', head: 'Postage', kind: 'money' },
  { id: 'packing', head: 'Packing', kind: 'money' },
  { id: 'cost', head: 'Cost', kind: 'money' },
  { id: 'net', head: 'Net', kind: 'money' },
  { id: 'margin', head: 'Margin', kind: 'share' },
  { id: 'return', head: 'Return on cost', kind: 'share' },
];
export const sumCells = (sums: SaleSums): (number | null)[] => [
  sums.pieces,
  sums.taken,
  -feesOfSums(sums),
  -sums.postage,
  -sums.packing,
  -sums.cost,
  sums.net,
  marginOf(sums),
  returnOf(sums),
];

/** The days or months of a period, in which it is drawn. */
function stepsOf(period: Period): string[] {
  if (daysIn(period) > mostDays) return monthsIn(period);
  const first = dayNumber(period.from);
  return Array.from({ length: daysIn(period) }, (_, at) => dayName(first + at));
}

/** Sales, fees by kind, postage, packing, cost and net: in all, over time and by account, with what they are compared with. */
export async function findMoney(facts: Facts, query: InsightQuery): Promise<InsightTable[]> {
  const scope = await scopeOf(query);
  const period = periodOf(query);
  const against = comparedWith(period, query.against);
  const isDaily = daysIn(period) <= mostDays;
  const names = await accountNames();
  const read = (within: Period) => {
    const sales = salesIn(facts, scope, dayNumber(within.from), dayNumber(within.to));
    return {
      all: sumOf(sales),
      steps: sumBy(sales, (sale) => (isDaily ? dayName(sale.day) : monthName(sale.day))),
      accounts: sumBy(sales, (sale) => sale.accountId ?? 0),
    };
  };
  const now = read(period);
  const before = against && read(against);
  const said = narrowedTo(query);
  const behind = (within: Period, more: Record<string, string> = {}) => ({ ...said, ...within, ...more });
  const total = (key: string, name: string, sums: SaleSums, within: Period) => ({
    key,
    cells: [name, ...sumCells(sums)],
    behind: behind(within),
  });
  const { all } = now;
  const allBefore = before?.all;
  const steps = stepsOf(period);
  const stepsBefore = against ? stepsOf(against) : [];
  const ids = [...new Set([...now.accounts.keys(), ...(before?.accounts.keys() ?? [])])];
  const netBefore = (sums: ReadonlyMap<string | number, SaleSums> | undefined, key: string | number | undefined) =>
    before && key !== undefined ? (sums?.get(key)?.net ?? 0) : null;
  return [
    {
      id: 'total',
      title: 'In all',
      about: saysOf(all),
      columns: [{ id: 'period', head: 'Period', kind: 'text' }, ...sumColumns],
      rows: [
        total('now', `${period.from} to ${period.to}`, all, period),
        ...(against && allBefore ? [total('before', `${against.from} to ${against.to}`, allBefore, against)] : []),
      ],
    },
    {
      id: 'time',
      title: 'Over time',
      about: against ? 'The last column is the net of what it is compared with, step by step.' : '',
      columns: [
        { id: 'step', head: isDaily ? 'Day' : 'Month', kind: 'text' },
        ...sumColumns,
        { id: 'before', head: 'Net before', kind: 'money' },
      ],
      rows: steps.map((step, at) => ({
        key: step,
        cells: [step, ...sumCells(now.steps.get(step) ?? noSums), netBefore(before?.steps, stepsBefore[at])],
        behind: behind(withinStep(step, period)),
      })),
    },
    {
      id: 'accounts',
      title: 'By account',
      about: '',
      columns: [
        { id: 'account', head: 'Account', kind: 'text' },
        ...sumColumns,
        { id: 'before', head: 'Net before', kind: 'money' },
      ],
      rows: ids
        .map((id) => ({ id, sums: now.accounts.get(id) ?? noSums }))
        .sort((a, b) => b.sums.net - a.sums.net)
        .map(({ id, sums }) => ({
          key: String(id || 'hand'),
          cells: [
            id === 0 ? 'By hand' : (names.get(id) ?? `Account ${id}`),
            ...sumCells(sums),
            netBefore(before?.accounts, id),
          ],
          behind: id === 0 ? null : behind(period, { soldOn: String(id) }),
        })),
    },
    {
      id: 'fees',
      title: 'Fees by kind',
      about:
        'Divided by each marketplace’s own table. What was charged besides, or heard before fees were divided, is other.',
      columns: [
        { id: 'kind', head: 'Kind', kind: 'text' },
        { id: 'amount', head: 'Amount', kind: 'money' },
        { id: 'share', head: 'Of what was taken', kind: 'share' },
        { id: 'before', head: 'Before', kind: 'money' },
      ],
      rows: (
        [
          ['commission', 'Commission'],
          ['payment', 'Payment'],
          ['handling', 'Sending or making'],
          ['otherFees', 'Other'],
        ] as const
      ).map(([kind, name]) => ({
        key: kind,
        cells: [
          name,
          all[kind],
          all.taken > 0 ? Math.round((all[kind] * 10_000) / all.taken) : null,
          allBefore ? allBefore[kind] : null,
        ],
        behind: null,
      })),
    },
  ];
}

/** A month or a day, as far as it is within the period. */
function withinStep(step: string, period: Period): Period {
  if (step.length === 10) return { from: step, to: step };
  const [year = 0, month = 1] = step.split('-').map(Number);
  const last = new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10);
  const isFirst = period.from.startsWith(step);
  return { from: isFirst ? period.from : `${step}-01`, to: period.to.startsWith(step) ? period.to : last };
}

function saysOf({ unknown, costless, cancelled }: SaleSums): string {
  return [
    ...(cancelled ? [`${cancelled} cancelled, in none of the figures.`] : []),
    ...(unknown ? [`${unknown} of which no rate of exchange was known are in none of the amounts.`] : []),
    ...(costless ? [`Of ${costless} pieces nobody wrote down what they cost: they count as free.`] : []),
  ].join(' ');
}
