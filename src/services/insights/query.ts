import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { type Filter, itemFilterSchema, readFilter } from '../../core/filter';
import { comparisons, type Period } from '../../core/insight';
import { filterTerm } from '../records/items/filter-sql';

export const daySchema = z.iso.date();

export const insightViews = ['money', 'stock', 'speed', 'best', 'effects'] as const;

/** A period, what it is compared with, and what is looked at: the one filter over items, and the account that sold. */
const askedSchema = itemFilterSchema
  .extend({
    view: z.enum(insightViews).default('money'),
    from: daySchema.describe('The first day, UTC'),
    to: daySchema.describe('The last day, which counts, too'),
    against: z.enum(comparisons).default('before'),
    soldOn: z.coerce.number().int().optional().describe('Only sales of this account, and items that were listed there'),
    by: z.enum(['item', 'category', 'brand', 'supplier', 'batch', 'condition', 'price']).default('category'),
  })
  .strict();
const runsForward = ({ from, to }: { from: string; to: string }) => from <= to;
const backward = { message: 'It ends before it begins', path: ['to'] };

export const insightQuerySchema = askedSchema.refine(runsForward, backward);
/** One of the tables of a view, as a file. */
export const insightFileQuerySchema = askedSchema
  .extend({ table: z.string().max(20), format: z.enum(['csv', 'xlsx', 'json', 'ndjson', 'xml']).default('csv') })
  .strict()
  .refine(runsForward, backward);
export type InsightQuery = z.output<typeof insightQuerySchema>;

/** What is said besides the period and how it is shown, as an address says it. */
export function narrowedTo(query: InsightQuery): Record<string, string> {
  const { view: _view, from: _from, to: _to, against: _against, by: _by, ...said } = query;
  return Object.fromEntries(
    Object.entries(said).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  );
}

export const periodOf = ({ from, to }: InsightQuery): Period => ({ from, to });

/** What is said of items; null where nothing is. Of what is archived, too: it was sold once. */
export function itemTerm(query: InsightQuery): SQL | null {
  const filter: Filter = readFilter(query);
  return 'all' in filter && filter.all.length ? filterTerm(filter) : null;
}

/** A sale, as `s`, is within a period. */
export const soldWithin = ({ from, to }: Period): SQL =>
  sql`(s.sold_at >= ${from} and s.sold_at < ${to} + interval 1 day)`;

/** The sales that are looked at, as `s`; of what is said of items these are joined as `i`. */
export function salesOf(query: InsightQuery, needsItem = false): { from: SQL; where: SQL } {
  const term = itemTerm(query);
  return {
    from: term || needsItem ? sql`sale s join item i on i.id = s.item_id` : sql`sale s`,
    where: sql`${query.soldOn === undefined ? sql`1` : sql`s.account_id = ${query.soldOn}`} and ${term ?? sql`1`}`,
  };
}

/**
 * The stock that is looked at: layers as `y`, their items as `i`. Whole sets that are one stock with their parts are left out:
 * the parts are there already.
 */
export function layersWhere(query: InsightQuery): SQL {
  const there =
    query.soldOn === undefined
      ? sql`1`
      : sql`exists (select 1 from first_listed f where f.item_id = i.id and f.account_id = ${query.soldOn})`;
  return sql`${there} and ${itemTerm(query) ?? sql`1`} and i.id not in (select set_id from item_part)`;
}

/** What the groups are made by, over `i`. */
export const priceEdges = [2_000, 5_000, 10_000, 25_000, 50_000] as const;
export const groupColumns: Record<Exclude<InsightQuery['by'], 'item'>, SQL> = {
  category: sql`i.category`,
  brand: sql`i.brand`,
  supplier: sql`i.supplier`,
  batch: sql`i.batch`,
  condition: sql`coalesce(i.condition_grade, '')`,
  price: sql`(${sql.join(
    priceEdges.map((edge) => sql`(coalesce(i.price, 0) >= ${edge})`),
    sql` + `,
  )})`,
};
