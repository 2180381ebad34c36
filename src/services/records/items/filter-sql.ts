import { type SQL, sql } from 'drizzle-orm';
import {
  boundsOf,
  type Condition,
  comparedField,
  daysBefore,
  type Filter,
  folded,
  type ListingPart,
  numberOf,
  type Stage,
  searchedWords,
  wordsOf,
} from '../../../core/filter';
import { isPatchable } from '../../../core/item/item';
import type { Json } from '../../../core/json';
import { knotStates, liveStates } from '../../../core/sync';
import { likeText } from '../../../db/like';
import { item } from '../../../db/schema';
import { today } from '../accounts/today';
import { isDrifted } from '../listings/is-drifted';

const never = sql`0`;
/** What is compared beside the columns that are named as their fields are. */
const facts: Record<string, () => SQL> = {
  photoCount: () => sql`i.photo_count`,
  titleLength: () => sql`char_length(i.title)`,
  unsoldDays: () =>
    sql`datediff(${today()}, coalesce((select max(s.sold_at) from sale s where s.item_id = i.id and s.state = 'paid'), i.created_at))`,
  createdAt: () => sql`i.created_at`,
  updatedAt: () => sql`i.updated_at`,
  quantity: () => sql`i.quantity`,
  standing: () => sql`elt(i.archived + 1, 'active', 'archived', 'deleted')`,
};
const columnOf = (field: string): SQL =>
  facts[field]?.() ?? (isPatchable(field) ? sql.raw(`i.\`${item[field].name}\``) : never);

/** A name inside a JSON document, whatever signs it holds. */
export const pathOf = (name: string): string => `$."${name.replace(/(["\\])/g, '\\$1')}"`;
const exact = (text: SQL): SQL => sql`rtrim(lower(${text})) collate utf8mb4_bin`;

/** Words compared as the core compares them. `column`, where there is one: an index finds what may fit first. */
function wordTerm(text: SQL, { op, value }: Condition, column: SQL | null): SQL {
  if (op === 'between') {
    const [least, most] = boundsOf(value);
    const terms = [
      ...(least === null ? [] : [sql`${exact(text)} >= ${folded(least)}`]),
      ...(most === null ? [] : [sql`${exact(text)} <= ${folded(most)}`]),
    ];
    return terms.length ? sql`(${sql.join(terms, sql` and `)})` : sql`1`;
  }
  const wanted = wordsOf(value);
  const [first] = wanted;
  if (first === undefined) return never;
  const found = (term: SQL, near: SQL) => (column ? sql`(${near} and ${term})` : term);
  switch (op) {
    case 'contains':
      return sql`${exact(text)} like ${`%${likeText(first)}%`}`;
    case 'begins':
      return found(sql`${exact(text)} like ${`${likeText(first)}%`}`, sql`${column} like ${`${likeText(first)}%`}`);
    case 'ends':
      return sql`${exact(text)} like ${`%${likeText(first)}`}`;
    default:
      return found(sql`${exact(text)} in ${wanted}`, sql`${column} in ${wanted}`);
  }
}

function numberTerm(column: SQL, { op, value }: Condition): SQL {
  if (op === 'between') {
    const [least, most] = boundsOf(value).map(numberOf);
    const terms = [
      sql`${column} is not null`,
      ...(least === null || least === undefined ? [] : [sql`${column} >= ${least}`]),
      ...(most === null || most === undefined ? [] : [sql`${column} <= ${most}`]),
    ];
    return sql`(${sql.join(terms, sql` and `)})`;
  }
  const wanted = (Array.isArray(value) ? value : [value]).flatMap((one) => numberOf(one) ?? []);
  return wanted.length ? sql`${column} in ${wanted}` : never;
}

function dayTerm(column: SQL, { op, value }: Condition): SQL {
  if (op === 'olderThan') return sql`${column} < ${daysBefore(today(), numberOf(value) ?? 0)}`;
  const day = (one: Json | undefined) => (typeof one === 'string' ? one : null);
  if (op === 'between') {
    const [least, most] = boundsOf(value).map(day);
    const terms = [
      sql`${column} is not null`,
      ...(least ? [sql`${column} >= ${least}`] : []),
      ...(most ? [sql`${column} <= ${most}`] : []),
    ];
    return sql`(${sql.join(terms, sql` and `)})`;
  }
  const wanted = (Array.isArray(value) ? value : [value]).flatMap((one) => day(one) ?? []);
  return wanted.length ? sql`${column} in ${wanted}` : never;
}

const anyEntry = (list: SQL, condition: Condition): SQL =>
  sql`exists (select 1 from json_table(${list}, '$[*]' columns (v varchar(2000) path '$')) t where ${wordTerm(sql`t.v`, condition, null)})`;

/** A field of one's own: what is stored tells how it is compared. */
function ownTerm(key: string, condition: Condition): SQL {
  const path = pathOf(key);
  const stored = sql`json_extract(i.own_values, ${path})`;
  const text = sql`coalesce(json_value(i.own_values, ${path}), '')`;
  if (condition.op === 'olderThan')
    return sql`(${text} regexp '^[0-9]{4}-[0-9]{2}-[0-9]{2}' and ${dayTerm(text, condition)})`;
  return sql`(case json_type(${stored}) when 'ARRAY' then ${anyEntry(stored, condition)} when 'INTEGER' then ${numberTerm(sql`cast(json_value(i.own_values, ${path}) as double)`, condition)} when 'DOUBLE' then ${numberTerm(sql`cast(json_value(i.own_values, ${path}) as double)`, condition)} else ${wordTerm(text, condition, null)} end)`;
}

function emptyTerm(field: string): SQL {
  if (field.startsWith('attributes.'))
    return sql`coalesce(char_length(json_value(i.attributes, ${pathOf(field.slice('attributes.'.length))})), 0) = 0`;
  if (field.startsWith('own.')) {
    const path = pathOf(field.slice('own.'.length));
    return sql`coalesce(json_compact(json_extract(i.own_values, ${path})), 'null') in ('null', '""', '[]', '{}')`;
  }
  switch (comparedField(field)) {
    case 'words':
      return sql`coalesce(char_length(${columnOf(field)}), 0) = 0`;
    case 'list':
      return field === 'photos' ? sql`i.photo_count = 0` : sql`json_length(${columnOf(field)}) = 0`;
    case 'map':
      return field === 'flaws'
        ? sql`not exists (select 1 from item_photo p where p.item_id = i.id and p.flaw is not null)`
        : sql`json_length(${columnOf(field)}) = 0`;
    default:
      return sql`${columnOf(field)} is null`;
  }
}

function conditionTerm(condition: Condition): SQL {
  const { field, op } = condition;
  const as = comparedField(field);
  if (as === undefined) return never;
  if (op === 'empty') return sql`(${emptyTerm(field)})`;
  if (op === 'filled') return sql`(not (${emptyTerm(field)}))`;
  if (op === 'not') return sql`((${conditionTerm({ ...condition, op: 'is' })}) is not true)`;
  if (field.startsWith('own.')) return ownTerm(field.slice('own.'.length), condition);
  if (field.startsWith('attributes.')) {
    const path = pathOf(field.slice('attributes.'.length));
    const text = sql`coalesce(json_value(i.attributes, ${path}), '')`;
    return op === 'olderThan' ? never : wordTerm(text, condition, null);
  }
  const column = columnOf(field);
  switch (as) {
    case 'number':
      return numberTerm(column, condition);
    case 'day':
      return dayTerm(sql`date_format(${column}, '%Y-%m-%d')`, condition);
    case 'moment':
      return op === 'olderThan'
        ? dayTerm(column, condition)
        : dayTerm(sql`date_format(${column}, '%Y-%m-%d')`, condition);
    case 'list':
      if (op === 'olderThan') return never;
      return field === 'photos'
        ? sql`exists (select 1 from item_photo p where p.item_id = i.id and ${wordTerm(sql`p.hash`, condition, null)})`
        : anyEntry(column, condition);
    case 'words':
      if (op === 'olderThan') return never;
      return field === 'condition' || field === 'standing'
        ? wordTerm(sql`coalesce(${column}, '')`, condition, null)
        : wordTerm(column, condition, column);
    default:
      return never;
  }
}

const stageTerms: Record<Stage, SQL> = {
  intake: sql`(i.title = '' or i.price is null)`,
  drafts: sql`i.id in (select item_id from listing where state = 'draft' and blocking > 0)`,
  ready: sql`i.id in (select item_id from listing where state = 'draft' and blocking = 0)`,
  live: sql`i.id in (select item_id from listing where state in ${liveStates})`,
  changed: sql`i.id in (select item_id from listing where state in ('changed', 'conflict'))`,
  drift: sql`i.id in (select item_id from listing where ${isDrifted})`,
  attention: sql`i.id in (select item_id from listing where state = 'attention')`,
  sold: sql`i.id in (select item_id from sale where item_id is not null)`,
};

function listingTerm({ account, state, unsent, drifted, cause, liveForDays, netBelow }: ListingPart): SQL {
  const there = account === undefined ? sql`` : sql` and l.account_id = ${account}`;
  if (state === 'none')
    return sql`not exists (select 1 from listing l where l.item_id = i.id${there} and l.state <> 'none')`;
  const terms = [
    ...(account === undefined ? [] : [sql`l.account_id = ${account}`]),
    state === undefined ? sql`l.state in ${knotStates.filter((one) => one !== 'none')}` : sql`l.state = ${state}`,
    ...(unsent ? [sql`l.remote = 'live' and l.dirty = 1`] : []),
    ...(drifted ? [isDrifted] : []),
    ...(liveForDays === undefined
      ? []
      : [sql`l.remote = 'live' and l.live_since < ${daysBefore(today(), liveForDays)}`]),
    ...(netBelow === undefined
      ? []
      : [sql`exists (select 1 from listing_net n where n.listing_id = l.id and n.net < ${netBelow})`]),
    ...(cause === undefined
      ? []
      : [
          sql`l.state = 'attention' and ${cause} = coalesce(if(l.remote = 'refused', l.refusal, null), (select j.message from job j where j.listing_id = l.id order by j.id desc limit 1), 'It failed')`,
        ]),
  ];
  return sql`i.id in (select l.item_id from listing l where ${sql.join(terms, sql` and `)})`;
}

/** Words for a full-text search in which every word must begin some word of the record. */
const searchTerm = (text: string): SQL => {
  const words = searchedWords(text).map((word) => `+${word}*`);
  return words.length
    ? sql`match(i.title, i.sku, i.brand, i.model, i.location) against (${words.join(' ')} in boolean mode)`
    : sql`1`;
};

/** What stands in a field, as SQL over `i`, the item table; of what is inside a document its JSON. */
export function fieldExpression(field: string): SQL {
  if (field.startsWith('attributes.'))
    return sql`json_extract(i.attributes, ${pathOf(field.slice('attributes.'.length))})`;
  if (field.startsWith('own.')) return sql`json_extract(i.own_values, ${pathOf(field.slice('own.'.length))})`;
  return columnOf(field);
}

/** A filter as SQL over `i`, the item table: it finds just what `matches` in the core means. */
export function filterTerm(filter: Filter): SQL {
  if ('all' in filter) return filter.all.length ? sql`(${sql.join(filter.all.map(filterTerm), sql` and `)})` : sql`1`;
  if ('any' in filter) return filter.any.length ? sql`(${sql.join(filter.any.map(filterTerm), sql` or `)})` : never;
  if ('stage' in filter) return stageTerms[filter.stage];
  if ('words' in filter) return searchTerm(filter.words);
  if ('listing' in filter) return listingTerm(filter.listing);
  return conditionTerm(filter);
}
