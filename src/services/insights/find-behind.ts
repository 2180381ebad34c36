import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { itemFilterSchema } from '../../core/filter';
import {
  dayNumber,
  eachLayer,
  type Facts,
  type Grouping,
  groupOf,
  monthName,
  nthPlace,
  type Scope,
  salesIn,
  sumOf,
} from '../../core/insight';
import { database } from '../../db/client';
import { item } from '../../db/schema';
import { daySchema, scopeOf } from './query';
import { readFacts } from './read-facts';

/** Which figure the items behind it are asked for. */
export const behindQuerySchema = itemFilterSchema
  .extend({
    of: z
      .enum(['sold', 'here', 'bought'])
      .default('sold')
      .describe('What was sold in the period, what lies here, what was bought'),
    from: daySchema.optional(),
    to: daySchema.optional(),
    month: z
      .string()
      .regex(/^\d{4}-\d{2}$/)
      .optional()
      .describe('Bought in this month'),
    ageFrom: z.coerce.number().int().min(0).optional(),
    ageTo: z.coerce.number().int().min(0).optional(),
    soldOn: z.coerce.number().int().optional(),
    nth: z.coerce
      .number()
      .int()
      .min(1)
      .max(4)
      .optional()
      .describe('The account was the item’s so many’th; 4 for the fourth or later'),
    item: z.coerce.number().int().optional(),
    group: z
      .string()
      .regex(/^(category|brand|supplier|batch|condition|price):/)
      .max(200)
      .optional()
      .describe('Items that have this in common, as field:value'),
    limit: z.coerce.number().int().min(1).max(500).default(200),
  })
  .strict();

export const behindSchema = z.object({
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
      photo: z.string().nullable(),
      pieces: z.number(),
      /** What was left of sales, or what lies in stock: minor units of the shop's currency. */
      amount: z.number(),
    }),
  ),
  count: z.number(),
  /** All of them, as far as one change may take them, those with the most money in it first. */
  ids: z.array(z.number()),
});

/** So many can be taken to the workbench at once from here. */
const mostIds = 10_000;

type Asked = z.output<typeof behindQuerySchema>;

type Part = { itemId: number; pieces: number; amount: number };

/** What is behind a figure: pieces and money by item. */
function partsOf(facts: Facts, scope: Scope, asked: Asked): Part[] {
  const { of, month, ageFrom = 0, ageTo = Number.POSITIVE_INFINITY, nth } = asked;
  const from = asked.from === undefined ? Number.NEGATIVE_INFINITY : dayNumber(asked.from);
  const to = asked.to === undefined ? Number.POSITIVE_INFINITY : dayNumber(asked.to);
  if (of === 'sold')
    return salesIn(facts, scope, from, to).flatMap((sale) => {
      const { itemId, isCancelled, quantity } = sale;
      if (isCancelled || itemId === null) return [];
      if (nth !== undefined && nthPlace(facts, sale) !== nth) return [];
      return [{ itemId, pieces: quantity, amount: sumOf([sale]).net }];
    });
  const found: Part[] = [];
  eachLayer(facts, scope, (known, { units, inDay, how }, itemId) => {
    if (of === 'here' && (how !== 'here' || known.standing !== 'active')) return;
    if (inDay < from || inDay > to || (month !== undefined && monthName(inDay) !== month)) return;
    const age = facts.today - inDay;
    if (age >= ageFrom && age <= ageTo) found.push({ itemId, pieces: units, amount: units * (known.cost ?? 0) });
  });
  return found;
}

/** The items behind a figure of Insights, those with the most money in it first. */
export async function findBehind(asked: Asked): Promise<z.infer<typeof behindSchema>> {
  const { of: _of, month: _month, ageFrom: _from, ageTo: _to, nth: _nth, item: one, group, limit, ...said } = asked;
  const { facts } = await readFacts();
  const scope = await scopeOf(said);
  const [by = '', ...value] = (group ?? '').split(':');
  const sums = new Map<number, { pieces: number; amount: number }>();
  for (const { itemId, pieces, amount } of partsOf(facts, scope, asked)) {
    if (one !== undefined && itemId !== one) continue;
    const known = facts.items.get(itemId);
    if (group !== undefined && (!known || groupOf(known, by as Grouping) !== value.join(':'))) continue; // one of those that the schema lets in
    const sum = sums.get(itemId) ?? { pieces: 0, amount: 0 };
    sums.set(itemId, { pieces: sum.pieces + pieces, amount: sum.amount + amount });
  }
  const all = [...sums].sort(([a, x], [b, y]) => y.amount - x.amount || a - b);
  const shown = all.slice(0, limit);
  const rows = await database()
    .select({ id: item.id, sku: item.sku, title: item.title, photo: item.mainPhoto })
    .from(item)
    .where(inArray(item.id, [0, ...shown.map(([id]) => id)]));
  const byId = new Map(rows.map((row) => [row.id, row]));
  return {
    items: shown.flatMap(([id, sum]) => {
      const row = byId.get(id);
      return row ? [{ ...row, ...sum }] : [];
    }),
    count: sums.size,
    ids: all.slice(0, mostIds).map(([id]) => id),
  };
}
