import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { itemFilterSchema } from '../../core/filter';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { daySchema, groupColumns, insightQuerySchema, layersWhere, salesOf, soldWithin } from './query';

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
      .regex(/^(category|brand|supplier|batch|condition):/)
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
});

/** The items behind a figure of Insights, those with the most money in it first. */
export async function findBehind(query: z.output<typeof behindQuerySchema>): Promise<z.infer<typeof behindSchema>> {
  const { of, from, to, month, ageFrom, ageTo, nth, item, group, limit, ...said } = query;
  const asked = insightQuerySchema.parse({ ...said, from: from ?? '2000-01-01', to: to ?? '2100-01-01' });
  const [column = '', ...value] = (group ?? '').split(':');
  const terms: SQL[] = [
    ...(group === undefined ? [] : [sql`${groupColumns[column as 'category']} = ${value.join(':')}`]), // one of those that the schema lets in
    ...(item === undefined ? [] : [sql`i.id = ${item}`]),
  ];
  const asking: { from: SQL; where: SQL; pieces: SQL; amount: SQL } =
    of === 'sold'
      ? {
          from: sql`${salesOf(asked, true).from}${
            nth === undefined
              ? sql``
              : sql` join first_listed f on f.item_id = s.item_id and f.account_id = s.account_id`
          }`,
          where: sql`s.state = 'paid' and ${soldWithin(asked)} and ${salesOf(asked, true).where}${
            nth === undefined ? sql`` : sql` and least(f.nth, 4) = ${nth}`
          }`,
          pieces: sql`sum(s.quantity)`,
          amount: sql`coalesce(sum(s.kept_home - s.postage - s.packing - coalesce(s.cost, 0) * s.quantity), 0)`,
        }
      : {
          from: sql`stock_layer y join item i on i.id = y.item_id`,
          where: sql.join(
            [
              layersWhere(asked),
              ...(of === 'here' ? [sql`y.how = 'here' and i.archived = 0`] : [sql`i.archived < 2`]),
              ...(from ? [sql`y.in_on >= ${from}`] : []),
              ...(to ? [sql`y.in_on <= ${to}`] : []),
              ...(month ? [sql`date_format(y.in_on, '%Y-%m') = ${month}`] : []),
              ...(ageFrom === undefined ? [] : [sql`datediff(utc_date(), y.in_on) >= ${ageFrom}`]),
              ...(ageTo === undefined ? [] : [sql`datediff(utc_date(), y.in_on) <= ${ageTo}`]),
            ],
            sql` and `,
          ),
          pieces: sql`sum(y.units)`,
          amount: sql`sum(y.units * coalesce(i.cost, 0))`,
        };
  const rows = rowsOf<{
    id: number;
    sku: string;
    title: string;
    photo: string | null;
    pieces: number;
    amount: number;
    count: number;
  }>(
    await database().execute(sql`select i.id, i.sku, i.title, i.main_photo as photo, ${asking.pieces} as pieces, ${asking.amount} as amount,
        count(*) over () as count
      from ${asking.from} where ${sql.join([asking.where, ...terms], sql` and `)}
      group by i.id order by amount desc, i.id limit ${limit}`),
  );
  return {
    items: rows.map(({ id, sku, title, photo, pieces, amount }) => ({
      id: Number(id),
      sku,
      title,
      photo,
      pieces: Number(pieces),
      amount: Number(amount),
    })),
    count: Number(rows[0]?.count ?? 0),
  };
}
