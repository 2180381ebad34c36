import { sql } from 'drizzle-orm';
import { type Effect, type Exposure, effectOf, type InsightTable, leastSold } from '../../core/insight';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { type InsightQuery, layersWhere, narrowedTo, periodOf, salesOf, soldWithin } from './query';
import { readSums } from './read-sums';

/** Ages are compared within these, in days; each within its category. */
const bands = [
  [0, 30],
  [30, 90],
  [90, 180],
  [180, 365],
  [365, 100_000],
] as const;
/** Only so many days after it count: what comes later has other reasons. */
const afterDays = 60;

const deeds = [
  ['cut_at', 'The first price cut'],
  ['renewed_at', 'The first renewal'],
  ['crossed_at', 'A second marketplace'],
] as const;

/** Pieces sold and days on offer, before and after a deed, by category and band of age. */
async function exposures(query: InsightQuery, deed: (typeof deeds)[number][0]): Promise<Exposure[]> {
  const since = sql`greatest(y.in_on, date(m.listed_at))`;
  const done = sql`date(m.${sql.identifier(deed)})`;
  const overlap = (low: unknown, high: unknown, from: number, to: number) =>
    sql`y.units * greatest(0, least(${high}, ${to}) - greatest(${low}, ${from}))`;
  const parts = bands.flatMap(([from, to], at) => {
    const name = (what: string) => sql.identifier(`${what}${at}`);
    const inBand = sql`y.age >= ${from} and y.age < ${to}`;
    return [
      sql`sum(if(y.sold and ${inBand} and (y.at is null or y.age < y.at), y.units, 0)) as ${name('soldBefore')}`,
      sql`sum(${overlap(sql`0`, sql`least(y.age, coalesce(y.at, y.age))`, from, to)}) as ${name('daysBefore')}`,
      sql`sum(if(y.sold and ${inBand} and y.age >= y.at and y.age < y.at + ${afterDays}, y.units, 0)) as ${name('soldAfter')}`,
      sql`sum(if(y.at is null, 0, ${overlap(sql`y.at`, sql`least(y.age, y.at + ${afterDays})`, from, to)})) as ${name('daysAfter')}`,
    ];
  });
  const { from, to } = periodOf(query);
  const rows = rowsOf<Record<string, string | number | null>>(
    await database().execute(sql`select ${sql.join(parts, sql`, `)} from (
        select i.category, y.units, y.how = 'sold' as sold, datediff(${done}, ${since}) as at,
          greatest(0, datediff(coalesce(y.out_on, utc_date()), ${since})) + 0.5 as age
        from stock_layer y join item i on i.id = y.item_id join item_milestone m on m.item_id = y.item_id
        where y.in_on between ${from} and ${to} and i.archived < 2 and ${layersWhere(query)}
          and m.listed_at is not null and (y.out_on is null or y.out_on >= date(m.listed_at))
          and (${done} is null or ${done} >= ${since})
      ) y group by y.category`),
  );
  return rows.flatMap((row) =>
    bands.map((_, at) => {
      const value = (what: keyof Exposure) => Number(row[`${what}${at}`] ?? 0);
      return {
        soldBefore: value('soldBefore'),
        daysBefore: value('daysBefore'),
        soldAfter: value('soldAfter'),
        daysAfter: value('daysAfter'),
      };
    }),
  );
}

const totals = (all: readonly Exposure[], what: keyof Exposure) => all.reduce((sum, one) => sum + one[what], 0);
const hundredths = (value: number | undefined) => (value === undefined ? null : Math.round(value * 100));

function verdict(effect: Effect | null): string {
  if (!effect) return 'Too few to say';
  if (effect.least > 1) return 'Sold faster afterwards';
  if (effect.most < 1) return 'Sold more slowly afterwards';
  return 'Makes no difference that one can see';
}

/** What price cuts, renewals and further marketplaces brought, and where the second and third marketplace paid. */
export async function findEffects(query: InsightQuery): Promise<InsightTable[]> {
  const period = periodOf(query);
  const { from, where } = salesOf(query);
  const [found, places] = await Promise.all([
    Promise.all(deeds.map(([deed]) => exposures(query, deed))),
    readSums(
      { nth: sql`least(f.nth, 4)`, accountId: sql`s.account_id` },
      {
        from: sql`${from} join first_listed f on f.item_id = s.item_id and f.account_id = s.account_id`,
        where: sql`${soldWithin(period)} and s.state = 'paid' and ${where}`,
      },
    ),
  ]);
  const names = new Map(
    rowsOf<{ id: number; name: string }>(await database().execute(sql`select id, name from account`)).map((one) => [
      Number(one.id),
      one.name,
    ]),
  );
  const nths = ['first', 'second', 'third', 'fourth or later'];
  const all = places.reduce((sum, one) => sum + one.pieces, 0);
  return [
    {
      id: 'effects',
      title: 'What it brought',
      about: `Pieces sold for each day on offer in the ${afterDays} days after it, compared with pieces of the same category and age before it, or without it. With 95 of 100 it lies between the bounds; with fewer than ${leastSold} sold on either side nothing is said. What was chosen for it may differ from the rest: it is a hint, not a proof.`,
      columns: [
        { id: 'deed', head: 'What was done', kind: 'text' },
        { id: 'before', head: 'Sold before', kind: 'count' },
        { id: 'after', head: 'Sold after', kind: 'count' },
        { id: 'times', head: 'Times as many', kind: 'times' },
        { id: 'least', head: 'At least', kind: 'times' },
        { id: 'most', head: 'At most', kind: 'times' },
        { id: 'verdict', head: 'In words', kind: 'text' },
      ],
      rows: deeds.map(([deed, name], at) => {
        const all = found[at] ?? [];
        const effect = effectOf(all);
        return {
          key: deed,
          cells: [
            name,
            totals(all, 'soldBefore'),
            totals(all, 'soldAfter'),
            hundredths(effect?.ratio),
            hundredths(effect?.least),
            hundredths(effect?.most),
            verdict(effect),
          ],
          behind: null,
        };
      }),
    },
    {
      id: 'places',
      title: 'Where further marketplaces paid',
      about:
        'Sales by the order in which the item came onto its marketplaces: what was sold on the second or a later one might still lie here.',
      columns: [
        { id: 'place', head: 'Sold on its', kind: 'text' },
        { id: 'account', head: 'Account', kind: 'text' },
        { id: 'pieces', head: 'Pieces', kind: 'count' },
        { id: 'share', head: 'Of all', kind: 'share' },
        { id: 'taken', head: 'Taken', kind: 'money' },
        { id: 'net', head: 'Net', kind: 'money' },
      ],
      rows: places
        .sort((a, b) => Number(a.nth) - Number(b.nth) || b.net - a.net)
        .map((one) => ({
          key: `${one.nth} ${one.accountId}`,
          cells: [
            nths[Number(one.nth) - 1] ?? '',
            names.get(Number(one.accountId)) ?? '',
            one.pieces,
            all > 0 ? Math.round((one.pieces * 10_000) / all) : null,
            one.taken,
            one.net,
          ],
          behind: { ...narrowedTo(query), ...period, soldOn: String(one.accountId), nth: String(one.nth) },
        })),
    },
  ];
}
