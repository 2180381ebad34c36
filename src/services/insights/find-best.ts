import { inArray } from 'drizzle-orm';
import { dayNumber, type Facts, groupOf, type InsightTable, salesIn, sumBy } from '../../core/insight';
import { database } from '../../db/client';
import { item } from '../../db/schema';
import { sumCells, sumColumns } from './find-money';
import { groupFilter, groupName } from './find-speed';
import { type InsightQuery, narrowedTo, periodOf, scopeOf } from './query';

const most = 25;
const heads = {
  item: 'Item',
  category: 'Category',
  brand: 'Brand',
  supplier: 'Supplier',
  batch: 'Batch',
  condition: 'Condition',
  price: 'Price',
} as const;

/** What earned most and least, by item or by what items have in common. */
export async function findBest(facts: Facts, query: InsightQuery): Promise<InsightTable[]> {
  const { by } = query;
  const period = periodOf(query);
  const sales = salesIn(facts, await scopeOf(query), dayNumber(period.from), dayNumber(period.to));
  const sums = sumBy(sales, ({ itemId, isCancelled }) => {
    const item = itemId === null || isCancelled ? undefined : facts.items.get(itemId);
    return item ? (by === 'item' ? itemId : groupOf(item, by)) : null;
  });
  const ranked = [...sums].map(([name, one]) => ({ name, ...one })).sort((a, b) => b.net - a.net);
  const best = ranked.slice(0, most);
  const worst = ranked.slice(-most).reverse();
  const titles =
    by === 'item'
      ? new Map(
          (
            await database()
              .select({ id: item.id, title: item.title, sku: item.sku })
              .from(item)
              .where(inArray(item.id, [0, ...[...best, ...worst].map((one) => Number(one.name))]))
          ).map((one) => [one.id, `${one.title} · ${one.sku}`]),
        )
      : new Map<number, string>();
  const said = narrowedTo(query);
  const table = (id: string, title: string, rows: typeof best): InsightTable => ({
    id,
    title,
    about: '',
    columns: [{ id: 'name', head: heads[by], kind: 'text' }, ...sumColumns],
    rows: rows.map((row) => {
      const value = String(row.name ?? '');
      return {
        key: value || '-',
        cells: [by === 'item' ? (titles.get(Number(value)) ?? 'Deleted') : groupName(by, value), ...sumCells(row)],
        behind: { ...said, ...period, ...(by === 'item' ? { item: value } : groupFilter(by, value)) },
      };
    }),
  });
  // What is among the best is not among the worst as well, where there are few.
  const shown = new Set(best.map((one) => one.name));
  return [
    table('best', 'Earned most', best),
    table(
      'worst',
      'Earned least',
      worst.filter((one) => one.net < 0 || !shown.has(one.name)),
    ),
  ];
}
