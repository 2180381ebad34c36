import { sql } from 'drizzle-orm';
import type { InsightTable } from '../../core/insight';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { type InsightQuery, layersWhere, narrowedTo, periodOf } from './query';

/** The first day of each band of age, and its name. */
export const ageBands = [
  [0, 'Up to 30 days'],
  [31, '31 to 90 days'],
  [91, '91 to 180 days'],
  [181, 'Half a year to a year'],
  [366, 'More than a year'],
] as const;
const bandOf = sql`(${sql.join(
  ageBands.slice(1).map(([from]) => sql`(datediff(utc_date(), y.in_on) >= ${from})`),
  sql` + `,
)})`;

/** After so many days it is asked how much of a month's purchases is sold. */
const looks = [30, 90, 180] as const;

/** What lies here, by its age, with the money in it; and how much of each month's purchases is sold. */
export async function findStock(query: InsightQuery): Promise<InsightTable[]> {
  const where = layersWhere(query);
  const period = periodOf(query);
  const said = narrowedTo(query);
  type Ages = { band: number; items: number; units: number; cost: number; costless: number; price: number };
  type Cohort = {
    month: string;
    units: number;
    sold: number;
    gone: number;
    here: number;
    paid: number;
    tied: number;
  } & {
    [look in `by${(typeof looks)[number]}`]: number;
  };
  const [ages, cohorts] = await Promise.all([
    database().execute(sql`select ${bandOf} as band, count(distinct y.item_id) as items, sum(y.units) as units,
        sum(y.units * coalesce(i.cost, 0)) as cost, sum(if(i.cost is null, y.units, 0)) as costless,
        sum(y.units * coalesce(i.price, 0)) as price
      from stock_layer y join item i on i.id = y.item_id
      where y.how = 'here' and i.archived = 0 and ${where} group by band`),
    database().execute(sql`select date_format(y.in_on, '%Y-%m') as month, sum(y.units) as units,
        sum(if(y.how = 'sold', y.units, 0)) as sold, sum(if(y.how = 'gone', y.units, 0)) as gone,
        sum(if(y.how = 'here', y.units, 0)) as here,
        ${sql.join(
          looks.map(
            (days) =>
              sql`sum(if(y.how = 'sold' and datediff(y.out_on, y.in_on) <= ${days}, y.units, 0)) as ${sql.identifier(`by${days}`)}`,
          ),
          sql`, `,
        )},
        sum(y.units * coalesce(i.cost, 0)) as paid, sum(if(y.how = 'here', y.units * coalesce(i.cost, 0), 0)) as tied
      from stock_layer y join item i on i.id = y.item_id
      where y.in_on between ${period.from} and ${period.to} and ${where} group by month order by month`),
  ]);
  const byBand = new Map(rowsOf<Ages>(ages).map((one) => [Number(one.band), one]));
  const lying = [...byBand.values()].reduce((sum, one) => sum + Number(one.cost), 0);
  const costless = [...byBand.values()].reduce((sum, one) => sum + Number(one.costless), 0);
  const today = Date.now();
  return [
    {
      id: 'ages',
      title: 'Age of the stock',
      about: `What lies here today, by the day on which it was bought.${costless ? ` Of ${costless} pieces nobody wrote down what they cost.` : ''}`,
      columns: [
        { id: 'age', head: 'Age', kind: 'text' },
        { id: 'items', head: 'Items', kind: 'count' },
        { id: 'pieces', head: 'Pieces', kind: 'count' },
        { id: 'tied', head: 'Money in it', kind: 'money' },
        { id: 'share', head: 'Share', kind: 'share' },
        { id: 'price', head: 'At today’s prices', kind: 'money' },
      ],
      rows: ageBands.map(([from, name], at) => {
        const one = byBand.get(at);
        const to = ageBands[at + 1]?.[0];
        const cost = Number(one?.cost ?? 0);
        return {
          key: String(from),
          cells: [
            name,
            Number(one?.items ?? 0),
            Number(one?.units ?? 0),
            cost,
            lying > 0 ? Math.round((cost * 10_000) / lying) : null,
            Number(one?.price ?? 0),
          ],
          behind: one
            ? { ...said, of: 'here', ageFrom: String(from), ...(to === undefined ? {} : { ageTo: String(to - 1) }) }
            : null,
        };
      }),
    },
    {
      id: 'cohorts',
      title: 'Sold of what was bought',
      about:
        'Each month’s purchases, and how much of them is sold by now. A month that is too young to say is left open.',
      columns: [
        { id: 'month', head: 'Bought in', kind: 'text' },
        { id: 'pieces', head: 'Pieces', kind: 'count' },
        { id: 'sold', head: 'Sold', kind: 'count' },
        { id: 'gone', head: 'Gone unsold', kind: 'count' },
        { id: 'here', head: 'Here', kind: 'count' },
        { id: 'through', head: 'Sold of it', kind: 'share' },
        ...looks.map((days) => ({ id: `by${days}`, head: `In ${days} days`, kind: 'share' as const })),
        { id: 'paid', head: 'Paid', kind: 'money' },
        { id: 'tied', head: 'Money in it', kind: 'money' },
      ],
      rows: rowsOf<Cohort>(cohorts).map((one) => {
        const [year = 0, month = 1] = one.month.split('-').map(Number);
        const end = Date.UTC(year, month, 0);
        const units = Number(one.units);
        const share = (count: number) => (units > 0 ? Math.round((count * 10_000) / units) : null);
        return {
          key: one.month,
          cells: [
            one.month,
            units,
            Number(one.sold),
            Number(one.gone),
            Number(one.here),
            share(Number(one.sold)),
            ...looks.map((days) => (today - end >= days * 86_400_000 ? share(Number(one[`by${days}`])) : null)),
            Number(one.paid),
            Number(one.tied),
          ],
          behind: { ...said, of: 'bought', month: one.month },
        };
      }),
    },
  ];
}
