import { sql } from 'drizzle-orm';
import {
  addSums,
  comparedWith,
  daysIn,
  feesOfSums,
  type InsightColumn,
  type InsightTable,
  marginOf,
  monthsIn,
  noSums,
  type Period,
  returnOf,
  type SaleSums,
} from '../../core/insight';
import { database } from '../../db/client';
import { account } from '../../db/schema';
import { type InsightQuery, narrowedTo, periodOf, salesOf, soldWithin } from './query';
import { readSums } from './read-sums';

const dayMs = 86_400_000;
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
  const first = Date.parse(period.from);
  return Array.from({ length: daysIn(period) }, (_, at) => new Date(first + at * dayMs).toISOString().slice(0, 10));
}

const summed = (rows: readonly SaleSums[]): SaleSums => rows.reduce<SaleSums>(addSums, noSums);

/** Sales, fees by kind, postage, packing, cost and net: in all, over time and by account, with what they are compared with. */
export async function findMoney(query: InsightQuery): Promise<InsightTable[]> {
  const period = periodOf(query);
  const against = comparedWith(period, query.against);
  const isDaily = daysIn(period) <= mostDays;
  const { from, where } = salesOf(query);
  const read = (within: Period) =>
    readSums(
      {
        step: isDaily ? sql`date_format(s.sold_at, '%Y-%m-%d')` : sql`date_format(s.sold_at, '%Y-%m')`,
        accountId: sql`s.account_id`,
      },
      { from, where: sql`${soldWithin(within)} and ${where}` },
    );
  const [now, before, accounts] = await Promise.all([
    read(period),
    against ? read(against) : null,
    database().select({ id: account.id, name: account.name }).from(account),
  ]);
  const said = narrowedTo(query);
  const behind = (within: Period, more: Record<string, string> = {}) => ({ ...said, ...within, ...more });
  const total = (key: string, name: string, sums: SaleSums, within: Period) => ({
    key,
    cells: [name, ...sumCells(sums)],
    behind: behind(within),
  });
  const all = summed(now);
  const allBefore = before && summed(before);
  const steps = stepsOf(period);
  const stepsBefore = against ? stepsOf(against) : [];
  const ofStep = (rows: typeof now | null, step: string | undefined) =>
    summed((rows ?? []).filter((one) => one.step === step));
  const nameOf = (id: number | null) =>
    accounts.find((one) => one.id === id)?.name ?? (id === null ? 'By hand' : `Account ${id}`);
  const ids = [
    ...new Set([...now, ...(before ?? [])].map((one) => (one.accountId === null ? null : Number(one.accountId)))),
  ];
  const ofAccount = (rows: typeof now | null, id: number | null) =>
    summed((rows ?? []).filter((one) => (one.accountId === null ? null : Number(one.accountId)) === id));
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
        cells: [
          step,
          ...sumCells(ofStep(now, step)),
          against && stepsBefore[at] ? ofStep(before, stepsBefore[at]).net : null,
        ],
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
        .map((id) => ({ id, sums: ofAccount(now, id), before: before && ofAccount(before, id).net }))
        .sort((a, b) => b.sums.net - a.sums.net)
        .map(({ id, sums, before: netBefore }) => ({
          key: String(id ?? 'hand'),
          cells: [nameOf(id), ...sumCells(sums), netBefore],
          behind: id === null ? null : behind(period, { soldOn: String(id) }),
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
