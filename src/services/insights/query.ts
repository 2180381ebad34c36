import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { type ItemFilter, itemFilterSchema, readFilter } from '../../core/filter';
import { comparisons, groupings, type Period, type Scope } from '../../core/insight';
import { withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { filterTerm } from '../records/items/filter-sql';
import { knowNetsFor } from '../records/listings/know-nets';

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
    by: z.enum(['item', ...groupings]).default('category'),
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

/** The items that the one filter finds, those that were put away among them; null where it says nothing. */
async function itemsOf(query: ItemFilter): Promise<Set<number> | null> {
  const filter = readFilter(query);
  if (filter.all.length === 0) return null;
  await knowNetsFor([filter]);
  const rows = await withConnection((connection) =>
    readRows<[number]>(connection, sql`select i.id from item i where ${filterTerm(filter)}`),
  );
  return new Set(rows.map(([id]) => Number(id)));
}

/** Whose sales and stock are looked at. */
export const scopeOf = async (query: ItemFilter & { soldOn?: number }): Promise<Scope> => ({
  items: await itemsOf(query),
  soldOn: query.soldOn ?? null,
});
