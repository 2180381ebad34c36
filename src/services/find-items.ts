import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { conditionIds } from '../core/item';
import { knotStates } from '../core/sync';
import { database, type Executor } from '../db/client';

export const stages = ['intake', 'drafts', 'ready', 'live', 'changed', 'drift', 'attention', 'sold'] as const;
export type Stage = (typeof stages)[number];

const whole = z.coerce.number().int();

/** Filters of the inventory; every one is optional and all must hold. */
export const itemFilterSchema = z
  .object({
    q: z.string().max(200).describe('Words of title, brand, model, stock number or place'),
    stage: z.enum(stages),
    account: whole,
    state: z.enum(knotStates).describe('State of the listing on `account`, or on any'),
    brand: z.string().max(80),
    category: z.string().max(120),
    condition: z.enum(conditionIds),
    location: z.string().max(60),
    priceMin: whole,
    priceMax: whole,
    quantityMin: whole,
    quantityMax: whole,
    photosMax: whole,
    own: z
      .string()
      .regex(/^[a-z][a-z0-9_]{0,29}:/, 'Write key:value')
      .max(200)
      .describe('A field of your own, as key:value'),
  })
  .partial();
export type ItemFilter = z.infer<typeof itemFilterSchema>;

export const sorts = {
  updated: 'updated_at',
  created: 'created_at',
  title: 'title',
  sku: 'sku',
  brand: 'brand',
  price: 'price',
  cost: 'cost',
  quantity: 'quantity',
  location: 'location',
  category: 'category',
  condition: 'condition_grade',
} as const;
type SortName = keyof typeof sorts;
const sortNames = Object.keys(sorts) as [SortName, ...SortName[]]; // keys of the constant above

export const findItemsSchema = itemFilterSchema.extend({
  sort: z.enum(sortNames).default('updated'),
  dir: z.enum(['asc', 'desc']).default('desc'),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  after: z.string().max(600).optional().describe('The `next` of the page before'),
});
export type FindItems = z.infer<typeof findItemsSchema>;

const stageWhere: Record<Stage, SQL> = {
  intake: sql`(i.title = '' or i.price is null)`,
  drafts: sql`i.id in (select item_id from listing where state = 'draft' and blocking > 0)`,
  ready: sql`i.id in (select item_id from listing where state = 'draft' and blocking = 0)`,
  live: sql`i.id in (select item_id from listing where state in ('live', 'changed', 'conflict'))`,
  changed: sql`i.id in (select item_id from listing where state in ('changed', 'conflict'))`,
  drift: sql`i.id in (select item_id from listing where state in ('changed', 'conflict') and drifted = 1)`,
  attention: sql`i.id in (select item_id from listing where state = 'attention')`,
  sold: sql`i.id in (select item_id from sale where item_id is not null)`,
};

/** Words for a full-text search in which every word must begin some word of the record. */
const booleanWords = (q: string) =>
  (q.match(/[\p{L}\p{N}]+/gu) ?? [])
    .filter((word) => word.length > 1)
    .map((word) => `+${word}*`)
    .join(' ');

/** The filters as SQL over `i`, the item table. */
export function whereOf(filter: ItemFilter): SQL {
  const terms: SQL[] = [sql`i.archived = 0`];
  const words = filter.q ? booleanWords(filter.q) : '';
  if (words) terms.push(sql`match(i.title, i.sku, i.brand, i.model, i.location) against (${words} in boolean mode)`);
  if (filter.stage) terms.push(stageWhere[filter.stage]);
  if (filter.state === 'none') {
    const there = filter.account ? sql`and l.account_id = ${filter.account}` : sql``;
    terms.push(sql`not exists (select 1 from listing l where l.item_id = i.id ${there} and l.state <> 'none')`);
  } else if (filter.state && filter.account)
    terms.push(
      sql`i.id in (select item_id from listing where account_id = ${filter.account} and state = ${filter.state})`,
    );
  else if (filter.state) terms.push(sql`i.id in (select item_id from listing where state = ${filter.state})`);
  else if (filter.account)
    terms.push(sql`i.id in (select item_id from listing where account_id = ${filter.account} and state <> 'none')`);
  if (filter.brand !== undefined) terms.push(sql`i.brand = ${filter.brand}`);
  if (filter.category !== undefined)
    terms.push(
      sql`(i.category = ${filter.category} or i.category like ${`${filter.category.replace(/[%_\\]/g, '\\$&')}/%`})`,
    );
  if (filter.condition) terms.push(sql`i.condition_grade = ${filter.condition}`);
  if (filter.location !== undefined)
    terms.push(sql`i.location like ${`${filter.location.replace(/[%_\\]/g, '\\$&')}%`}`);
  if (filter.priceMin !== undefined) terms.push(sql`i.price >= ${filter.priceMin}`);
  if (filter.priceMax !== undefined) terms.push(sql`i.price <= ${filter.priceMax}`);
  if (filter.quantityMin !== undefined) terms.push(sql`i.quantity >= ${filter.quantityMin}`);
  if (filter.quantityMax !== undefined) terms.push(sql`i.quantity <= ${filter.quantityMax}`);
  if (filter.photosMax !== undefined) terms.push(sql`i.photo_count <= ${filter.photosMax}`);
  if (filter.own !== undefined) {
    const [key = '', ...rest] = filter.own.split(':');
    const wanted = rest.join(':');
    // A list holds the word, a single value is it.
    terms.push(
      sql`(json_value(i.own_values, ${`$.${key}`}) = ${wanted} or json_contains(coalesce(json_query(i.own_values, ${`$.${key}`}), '[]'), json_quote(${wanted})))`,
    );
  }
  return sql.join(terms, sql` and `);
}

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

export type FoundKnot = {
  id: number;
  accountId: number;
  state: (typeof knotStates)[number];
  blocking: number;
  ownPrice: number | null;
  url: string | null;
};
export type FoundItem = {
  id: number;
  version: number;
  sku: string;
  title: string;
  brand: string;
  category: string;
  condition: string | null;
  location: string;
  price: number | null;
  cost: number | null;
  quantity: number;
  currency: string;
  weightGrams: number | null;
  photo: string | null;
  photoCount: number;
  updatedAt: string;
  knots: FoundKnot[];
};
export type FoundPage = { items: FoundItem[]; next: string | null };

const itemColumns = sql`i.id, i.version, i.sku, i.title, i.brand, i.category, i.condition_grade as \`condition\`, i.location, i.price, i.cost, i.quantity,
  i.currency, i.weight_grams as weightGrams, i.main_photo as photo, i.photo_count as photoCount, date_format(i.updated_at, '%Y-%m-%dT%H:%i:%s.%fZ') as updatedAt`;

// The shape of a select is known to the one who wrote it; the driver cannot tell.
export const rowsOf = <T>(result: unknown): T[] => (result as [T[]])[0];

/** A page of the inventory with the knots of its items. Paged by key: as fast at the end as at the beginning. */
export async function findItems(input: FindItems, db: Executor = database()): Promise<FoundPage> {
  const column = sql.raw(`i.${sorts[input.sort]}`);
  const dir = sql.raw(input.dir);
  const cursor = input.after ? readCursor(input.after) : null;
  const after = cursor ? sql` and ${afterCursor(column, input.dir, cursor)}` : sql``;
  const found = rowsOf<Omit<FoundItem, 'knots'> & { cursorValue: string | number | null }>(
    await db.execute(sql`select ${itemColumns}, ${input.sort === 'updated' || input.sort === 'created' ? sql`date_format(${column}, '%Y-%m-%d %H:%i:%s.%f')` : column} as cursorValue
      from item i where ${whereOf(input)}${after} order by ${column} ${dir}, i.id ${dir} limit ${input.limit + 1}`),
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
      sql`select id, item_id as itemId, account_id as accountId, state, blocking, own_price as ownPrice, remote_url as url from listing where item_id in ${ids}`,
    ),
  );
  for (const { itemId, ...knot } of rows) {
    const list = byItem.get(itemId);
    if (list) list.push(knot);
    else byItem.set(itemId, [knot]);
  }
  return byItem;
}

export async function countItems(filter: ItemFilter, db: Executor = database()): Promise<number> {
  const [row] = rowsOf<{ count: number }>(
    await db.execute(sql`select count(*) as count from item i where ${whereOf(filter)}`),
  );
  return row?.count ?? 0;
}
