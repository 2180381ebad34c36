import { dayNumber, eachLayer, type Facts, type InsightTable, monthName } from '../../core/insight';
import { type InsightQuery, narrowedTo, periodOf, scopeOf } from './query';

/** The first day of each band of age, and its name. */
export const ageBands = [
  [0, 'Up to 30 days'],
  [31, '31 to 90 days'],
  [91, '91 to 180 days'],
  [181, 'Half a year to a year'],
  [366, 'More than a year'],
] as const;
/** After so many days it is asked how much of a month's purchases is sold. */
const looks = [30, 90, 180] as const;

type Lying = { items: Set<number>; units: number; cost: number; costless: number; price: number };
type Cohort = { units: number; sold: number; gone: number; here: number; paid: number; tied: number; by: number[] };

/** What lies here, by its age, with the money in it; and how much of each month's purchases is sold. */
export async function findStock(facts: Facts, query: InsightQuery): Promise<InsightTable[]> {
  const scope = await scopeOf(query);
  const period = periodOf(query);
  const [from, to] = [dayNumber(period.from), dayNumber(period.to)];
  const said = narrowedTo(query);
  const bands = ageBands.map((): Lying => ({ items: new Set(), units: 0, cost: 0, costless: 0, price: 0 }));
  const cohorts = new Map<string, Cohort>();
  eachLayer(facts, scope, (item, { units, inDay, outDay, how }, itemId) => {
    const cost = units * (item.cost ?? 0);
    if (how === 'here' && item.standing === 'active') {
      const band = bands[ageBands.findLastIndex(([least]) => facts.today - inDay >= least)] ?? bands[0];
      if (band) {
        band.items.add(itemId);
        band.units += units;
        band.cost += cost;
        band.costless += item.cost === null ? units : 0;
        band.price += units * (item.price ?? 0);
      }
    }
    if (inDay < from || inDay > to) return;
    const month = monthName(inDay);
    const cohort = cohorts.get(month) ?? {
      units: 0,
      sold: 0,
      gone: 0,
      here: 0,
      paid: 0,
      tied: 0,
      by: looks.map(() => 0),
    };
    cohorts.set(month, cohort);
    cohort.units += units;
    cohort[how] += units;
    cohort.paid += cost;
    if (how === 'here') cohort.tied += cost;
    looks.forEach((days, at) => {
      if (how === 'sold' && outDay !== null && outDay - inDay <= days) cohort.by[at] = (cohort.by[at] ?? 0) + units;
    });
  });
  const lying = bands.reduce((sum, one) => sum + one.cost, 0);
  const costless = bands.reduce((sum, one) => sum + one.costless, 0);
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
      rows: ageBands.map(([least, name], at) => {
        const one = bands[at];
        const next = ageBands[at + 1]?.[0];
        const cost = one?.cost ?? 0;
        return {
          key: String(least),
          cells: [
            name,
            one?.items.size ?? 0,
            one?.units ?? 0,
            cost,
            lying > 0 ? Math.round((cost * 10_000) / lying) : null,
            one?.price ?? 0,
          ],
          behind: one?.units
            ? {
                ...said,
                of: 'here',
                ageFrom: String(least),
                ...(next === undefined ? {} : { ageTo: String(next - 1) }),
              }
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
      rows: [...cohorts]
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([name, one]) => {
          const [year = 0, month = 1] = name.split('-').map(Number);
          const end = Date.UTC(year, month, 0);
          const share = (count: number | undefined) =>
            one.units > 0 ? Math.round(((count ?? 0) * 10_000) / one.units) : null;
          return {
            key: name,
            cells: [
              name,
              one.units,
              one.sold,
              one.gone,
              one.here,
              share(one.sold),
              ...looks.map((days, at) => (today - end >= days * 86_400_000 ? share(one.by[at]) : null)),
              one.paid,
              one.tied,
            ],
            behind: { ...said, of: 'bought', month: name },
          };
        }),
    },
  ];
}
