import {
  type AtAge,
  dayNumber,
  eachLayer,
  type Facts,
  type Grouping,
  groupOf,
  type InsightTable,
  medianDays,
  priceEdges,
  soldBy,
  survivalOf,
} from '../../core/insight';
import { formatMoney, homeCurrency } from '../../core/measure';
import { type InsightQuery, narrowedTo, periodOf, scopeOf } from './query';

/** Fewer pieces than this say nothing about how fast a group goes. */
const leastPieces = 10;
/** So many groups are drawn, the largest. */
const mostGroups = 12;

const money = (amount: number) => formatMoney(amount, homeCurrency);
/** What a group is called, where it is no word of the items. */
export function groupName(by: InsightQuery['by'], value: string): string {
  if (by !== 'price') return value || 'Not said';
  const at = Number(value);
  const [least, most] = [priceEdges[at - 1], priceEdges[at]];
  if (least === undefined) return `Below ${money(most ?? 0)}`;
  return most === undefined ? `${money(least)} and more` : `${money(least)} to ${money(most)}`;
}

/** How items of a group are asked for. */
export const groupFilter = (by: Grouping, value: string): Record<string, string> => ({ group: `${by}:${value}` });

/**
 * How fast things go: for each group after how many days half of it is sold, counting what has not sold yet as far as it has
 * stood. Of the pieces that were bought within the period.
 */
export async function findSpeed(facts: Facts, query: InsightQuery): Promise<InsightTable[]> {
  const by = query.by === 'item' ? 'category' : query.by;
  const period = periodOf(query);
  const [from, to] = [dayNumber(period.from), dayNumber(period.to)];
  const groups = new Map<string, AtAge[]>();
  eachLayer(facts, await scopeOf(query), (item, { units, inDay, outDay, how }) => {
    if (inDay < from || inDay > to) return;
    const value = groupOf(item, by);
    const ages = groups.get(value) ?? [];
    if (ages.length === 0) groups.set(value, ages);
    const day = Math.max(0, (outDay ?? facts.today) - inDay);
    ages.push({ day, sold: how === 'sold' ? units : 0, left: how === 'sold' ? 0 : units });
  });
  const found = [...groups]
    .map(([value, ages]) => {
      const points = survivalOf(ages);
      return { value, points, pieces: points[0]?.atRisk ?? 0, sold: ages.reduce((sum, one) => sum + one.sold, 0) };
    })
    .sort((a, b) => b.pieces - a.pieces);
  const said = narrowedTo(query);
  const share = (points: (typeof found)[number]['points'], day: number) => Math.round(soldBy(points, day) * 10_000);
  return [
    {
      id: 'groups',
      title: 'How fast things go',
      about: `What has not sold yet counts, too: as standing for at least as long as it has. A group with fewer than ${leastPieces} pieces says nothing.`,
      columns: [
        { id: 'group', head: 'Group', kind: 'text' },
        { id: 'pieces', head: 'Pieces', kind: 'count' },
        { id: 'sold', head: 'Sold', kind: 'count' },
        { id: 'median', head: 'Half sold in', kind: 'days' },
        { id: 'by30', head: 'Sold in 30 days', kind: 'share' },
        { id: 'by90', head: 'In 90 days', kind: 'share' },
        { id: 'by180', head: 'In 180 days', kind: 'share' },
      ],
      rows: found.map(({ value, points, pieces, sold }) => {
        const tells = pieces >= leastPieces;
        return {
          key: value || '-',
          cells: [
            groupName(by, value),
            pieces,
            sold,
            tells ? medianDays(points) : null,
            ...[30, 90, 180].map((day) => (tells ? share(points, day) : null)),
          ],
          behind: { ...said, ...groupFilter(by, value), of: 'bought', from: period.from, to: period.to },
        };
      }),
    },
    {
      id: 'curve',
      title: 'Not sold yet, by days',
      about:
        'Of what was bought, the share that is not sold after so many days; with 95 of 100 it lies between the bounds.',
      columns: [
        { id: 'group', head: 'Group', kind: 'text' },
        { id: 'day', head: 'Day', kind: 'days' },
        { id: 'unsold', head: 'Not sold', kind: 'share' },
        { id: 'least', head: 'At least', kind: 'share' },
        { id: 'most', head: 'At most', kind: 'share' },
      ],
      rows: found
        .filter(({ pieces }) => pieces >= leastPieces)
        .slice(0, mostGroups)
        .flatMap(({ value, points }) =>
          points.map((point) => ({
            key: `${value} ${point.day}`,
            cells: [
              groupName(by, value),
              point.day,
              Math.round(point.unsold * 10_000),
              Math.round(point.least * 10_000),
              Math.round(point.most * 10_000),
            ],
            behind: null,
          })),
        ),
    },
  ];
}
