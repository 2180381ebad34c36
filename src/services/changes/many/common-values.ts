import { inArray, type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { type Field, fieldValue } from '../../../core/field';
import { type Condition, comparedField, conditionSchema } from '../../../core/filter';
import { type Json, ownValue } from '../../../core/json';
import { database, withConnection } from '../../../db/client';
import { readRows } from '../../../db/raw';
import { listing } from '../../../db/schema';
import { fieldExpression, pathOf } from '../../records/items/filter-sql';
import { loadItems } from '../../records/items/load-items';
import { selectionSchema, selectionWhere } from '../../records/items/selection';
import { shortly } from './shortly';
import { stepContext } from './step-context';

export const commonValuesSchema = z
  .object({
    selection: selectionSchema,
    account: z
      .number()
      .int()
      .optional()
      .describe('What is written for this account alone, in place of the item itself'),
  })
  .strict();

export const commonValueSchema = z.object({
  field: z.string(),
  label: z.string(),
  /** How many values there are; 1 where all have the same. */
  different: z.number(),
  /** How many items have any of them. */
  count: z.number(),
  /** The commonest first. */
  commonest: z.array(
    z.object({
      shown: z.string(),
      count: z.number(),
      /** What finds those that have it; null where no filter can say it. */
      condition: conditionSchema.nullable(),
    }),
  ),
});
export type CommonValue = z.infer<typeof commonValueSchema>;

const mostValues = 5;
const mostNames = 25;
const closed = ['photos', 'axes', 'combinations', 'map'];

/** A value, how many have it, how many values there are: read from one row that has it. */
type Group = [example: number, count: number, different: number, all: number];

function conditionOf(field: Field, value: Json): Condition | null {
  const as = comparedField(field.id);
  if (as === undefined || as === 'list' || as === 'map' || field.kind.is === 'rich') return null;
  const isEmpty = value === null || value === '';
  return isEmpty ? { field: field.id, op: 'empty' } : { field: field.id, op: 'is', value };
}

/**
 * What the chosen items have in common, field by field as it is found: one value, or how many different ones and the
 * commonest of them. Of an account: what is written for it alone.
 */
export async function* commonValues({
  selection,
  account,
}: z.infer<typeof commonValuesSchema>): AsyncGenerator<CommonValue> {
  const db = database();
  const { context } = await stepContext(db);
  const where = selectionWhere(selection);
  const groups = (from: SQL, example: SQL, value: SQL) =>
    withConnection((connection) =>
      readRows<Group>(
        connection,
        sql`select min(${example}), count(*), count(*) over (), sum(count(*)) over () from ${from} group by ${value} order by count(*) desc, 1 limit ${mostValues}`,
      ),
    );
  const names = (from: SQL, document: SQL) =>
    withConnection((connection) =>
      readRows<[string]>(
        connection,
        sql`select n.name from ${from}, json_table(json_keys(${document}), '$[*]' columns (name varchar(80) path '$')) n where ${where} group by n.name order by count(*) desc limit ${mostNames}`,
      ),
    );
  const line = async (
    field: Field,
    found: Group[],
    read: (ids: number[]) => Promise<Map<number, Json>>,
    currency: string,
  ): Promise<CommonValue> => {
    const values = await read(found.map(([example]) => example));
    const [[, , different, count] = [0, 0, 0, 0]] = found;
    return {
      field: field.id,
      label: field.label,
      different: Number(different),
      count: Number(count),
      commonest: found.map(([example, times]) => {
        const value = values.get(example) ?? field.empty;
        return {
          shown: shortly(field, value, currency),
          count: times,
          condition: account === undefined ? conditionOf(field, value) : null,
        };
      }),
    };
  };
  if (account !== undefined) {
    const from = sql`listing l join item i on i.id = l.item_id and l.account_id = ${account}`;
    for (const [name] of await names(from, sql`l.overrides`)) {
      const field = context.listingField(account, name);
      if (!field || closed.includes(field.kind.is)) continue;
      const own = sql`json_extract(l.overrides, ${pathOf(name)})`;
      const found = await groups(sql`${from} where ${where} and ${own} is not null`, sql`l.id`, sql`md5(${own})`);
      const read = async (ids: number[]) => {
        const rows = ids.length
          ? await db
              .select({ id: listing.id, overrides: listing.overrides })
              .from(listing)
              .where(inArray(listing.id, ids))
          : [];
        return new Map(rows.map((row) => [row.id, ownValue(row.overrides, name) ?? null]));
      };
      if (found.length) yield await line(field, found, read, context.currencyOf(account));
    }
    return;
  }
  const readOf = (id: string) => async (ids: number[]) =>
    new Map((await loadItems(db, ids)).map((item) => [item.id, fieldValue(item, id)]));
  const item = sql`item i`;
  const one = async (field: Field) => {
    const value = fieldExpression(field.id);
    const found = await groups(sql`${item} where ${where}`, sql`i.id`, sql`md5(coalesce(${value}, ''))`);
    return line(field, found, readOf(field.id), context.currency);
  };
  for (const field of context.catalogue.fields) {
    if (field.on !== 'item' || closed.includes(field.kind.is)) continue;
    if (field.id.includes('.') && !field.id.startsWith('own.')) continue;
    yield await one(field);
  }
  for (const [name] of await names(item, sql`i.attributes`)) {
    const field = context.catalogue.item(`attributes.${name}`);
    if (field) yield await one(field);
  }
}
