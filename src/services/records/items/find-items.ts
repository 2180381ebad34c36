import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { itemFilterSchema, readFilter, type SortName, sortNames } from '../../../core/filter';
import { conditionIds } from '../../../core/item';
import { knotStates } from '../../../core/sync/state';
import { database, type Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { item } from '../../../db/schema';
import { knowNetsFor } from '../listings/know-nets';
import { whereOf } from './item-filter';
import { nearest } from './nearest';

const columnOf = (sort: SortName): SQL =>
  sort === 'updated' ? sql`i.updated_at` : sort === 'created' ? sql`i.created_at` : sql.raw(`i.\`${item[sort].name}\``);

export const findItemsSchema = itemFilterSchema.extend({
  sort: z.enum(sortNames).default('updated'),
  dir: z.enum(['asc', 'desc']).default('desc'),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  after: z.string().max(600).optional().describe('The `next` of the page before'),
});

export type FindItems = z.infer<typeof findItemsSchema>;

type Cursor = { value: string | number | null; id: number };

const cursorSchema = z.object({ value: z.union([z.string(), z.number(), z.null()]), id: z.number() });

const readCursor = (after: string): Cursor | null => {
  try {
    return cursorSchema.parse(JSON.parse(Buffer.from(after, 'base64url').toString('utf8')));
  } catch {
    return null;
  }
};

/** Rows after the cursor in the sorted order; empty values come first going up and last going down. */
function afterCursor(column: SQL, dir: 'asc' | 'desc', { value, id }: Cursor): SQL {
  if (dir === 'asc') {
    if (value === null) return sql`((${column} is null and i.id > ${id}) or ${column} is not null)`;
    return sql`(${column} > ${value} or (${column} = ${value} and i.id > ${id}))`;
  }
  if (value === null) return sql`(${column} is null and i.id < ${id})`;
  return sql`(${column} < ${value} or (${column} = ${value} and i.id < ${id}) or ${column} is null)`;
}

export const foundKnotSchema = z.object({
  id: z.number(),
  accountId: z.number(),
  state: z.enum(knotStates),
  blocking: z.number(),
  overridePrice: z.number().nullable(),
  url: z.string().nullable(),
});
export type FoundKnot = z.infer<typeof foundKnotSchema>;

export const foundItemSchema = z.object({
  id: z.number(),
  version: z.number(),
  sku: z.string(),
  title: z.string(),
  brand: z.string(),
  category: z.string(),
  condition: z.enum(conditionIds).nullable(),
  location: z.string(),
  price: z.number().nullable(),
  cost: z.number().nullable(),
  quantity: z.number(),
  currency: z.string(),
  weightGrams: z.number().nullable(),
  photo: z.string().nullable(),
  photoCount: z.number(),
  updatedAt: z.string(),
  knots: z.array(foundKnotSchema),
});
export type FoundItem = z.infer<typeof foundItemSchema>;

export const foundPageSchema = z.object({
  items: z.array(foundItemSchema),
  next: z.string().nullable(),
});
export type FoundPage = z.infer<typeof foundPageSchema>;

const itemColumns = sql`i.id, i.version, i.sku, i.title, i.brand, i.category, i.condition_grade as \`condition\`, i.location, i.price, i.cost, i.quantity,
  i.currency, i.weight_grams as weightGrams, i.main_photo as photo, i.photo_count as photoCount, date_format(i.updated_at, '%Y-%m-%dT%H:%i:%s.%fZ') as updatedAt`;

/** A page of the inventory with the knots of its items. Paged by key: as fast at the end as at the beginning. */
export async function findItems(input: FindItems, db: Executor = database()): Promise<FoundPage> {
  await knowNetsFor([readFilter(input)]);
  const column = columnOf(input.sort);
  const dir = sql.raw(input.dir);
  const cursor = input.after ? readCursor(input.after) : null;
  const after = cursor ? sql` and ${afterCursor(column, input.dir, cursor)}` : sql``;
  const near = await nearest(db, input, sql`${after} order by ${column} ${dir}, i.id ${dir}`);
  const where = near === null ? sql`${whereOf(input)}${after}` : near.length ? sql`i.id in ${near}` : sql`0`;
  const found = rowsOf<Omit<FoundItem, 'knots'> & { cursorValue: string | number | null }>(
    await db.execute(sql`select ${itemColumns}, ${input.sort === 'updated' || input.sort === 'created' ? sql`date_format(${column}, '%Y-%m-%d %H:%i:%s.%f')` : column} as cursorValue
      from item i where ${where} order by ${column} ${dir}, i.id ${dir} limit ${input.limit + 1}`),
  );
  const page = found.slice(0, input.limit);
  const last = page.at(-1);
  const knots = await knotsOf(
    db,
    page.map((row) => row.id),
  );
  return {
    items: page.map(({ cursorValue: _cursor, ...row }) => ({ ...row, knots: knots.get(row.id) ?? [] })),
    next:
      found.length > input.limit && last
        ? Buffer.from(JSON.stringify({ value: last.cursorValue, id: last.id })).toString('base64url')
        : null,
  };
}

async function knotsOf(db: Executor, ids: number[]): Promise<Map<number, FoundKnot[]>> {
  const byItem = new Map<number, FoundKnot[]>();
  if (ids.length === 0) return byItem;
  const rows = rowsOf<FoundKnot & { itemId: number }>(
    await db.execute(
      sql`select id, item_id as itemId, account_id as accountId, state, blocking, override_price as overridePrice, remote_url as url from listing where item_id in ${ids}`,
    ),
  );
  for (const { itemId, ...knot } of rows) {
    const list = byItem.get(itemId);
    if (list) list.push(knot);
    else byItem.set(itemId, [knot]);
  }
  return byItem;
}
