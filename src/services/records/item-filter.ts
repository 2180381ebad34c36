import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { conditionIds } from '../../core/item';
import { knotStates } from '../../core/sync';

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
