import { fieldValue } from '../field/item-values';
import type { Item } from '../item/item';
import type { Json } from '../json';
import type { KnotState } from '../sync/state';
import { boundsOf, comparedField, daysBefore, daysBetween, folded, numberOf, said, wordsOf } from './compared';
import type { Condition, Filter, ListingPart } from './filter';
import type { Stage } from './stages';

/** An item with what filters may ask of it besides its fields. */
export type Subject = {
  item: Item;
  listings?: readonly {
    accountId: number;
    state: KnotState;
    blocking: number;
    drifted: boolean;
    /** Something is to be sent. */
    dirty?: boolean;
    /** What is left of its price, in minor units of the account's currency. */
    net?: number | null;
    isLive?: boolean;
    /** ISO 8601, UTC. */
    liveSince?: string;
    /** Why its last job failed. */
    cause?: string;
  }[];
  sold?: boolean;
  /** When it was last sold: ISO 8601, UTC. */
  soldAt?: string;
  /** ISO 8601, UTC. */
  createdAt?: string;
  updatedAt?: string;
  /** As 2026-11-23. */
  today: string;
};

const valueIn = ({ item, createdAt, updatedAt, soldAt, today }: Subject, field: string): Json => {
  if (field === 'photoCount') return item.photos.length;
  if (field === 'titleLength') return [...item.title].length;
  if (field === 'unsoldDays') {
    const since = soldAt ?? createdAt;
    return since === undefined ? null : daysBetween(since.slice(0, 10), today);
  }
  if (field === 'createdAt') return createdAt ?? null;
  if (field === 'updatedAt') return updatedAt ?? null;
  return fieldValue(item, field);
};

/** Nothing is written there: null, no text, no entries. */
const isEmpty = (value: Json): boolean =>
  value === null ||
  value === '' ||
  (Array.isArray(value) && value.length === 0) ||
  (typeof value === 'object' && !Array.isArray(value) && Object.keys(value).length === 0);

function wordFits(here: string, op: Condition['op'], wanted: string[]): boolean {
  const [first = ''] = wanted;
  switch (op) {
    case 'contains':
      return here.includes(first);
    case 'begins':
      return here.startsWith(first);
    case 'ends':
      return here.endsWith(first);
    default:
      return wanted.includes(here);
  }
}

function between(
  value: number | string | null,
  [least, most]: [number | string | null, number | string | null],
): boolean {
  if (value === null) return false;
  return (least === null || value >= least) && (most === null || value <= most);
}

function numberFits(value: number | null, { op, value: wanted }: Condition): boolean {
  if (op === 'between') {
    const [least, most] = boundsOf(wanted);
    return between(value, [numberOf(least), numberOf(most)]);
  }
  const all = (Array.isArray(wanted) ? wanted : [wanted]).map(numberOf);
  return value !== null && all.includes(value);
}

function dayFits(value: Json, { op, value: wanted }: Condition, today: string): boolean {
  const day = typeof value === 'string' && /^\d{4}-\d{2}-\d{2}/.test(value) ? value.slice(0, 10) : null;
  if (op === 'olderThan') return day !== null && day < daysBefore(today, numberOf(wanted) ?? 0);
  const text = (one: Json) => (typeof one === 'string' ? one : null);
  if (op === 'between') {
    const [least, most] = boundsOf(wanted);
    return between(day, [text(least), text(most)]);
  }
  return day !== null && (Array.isArray(wanted) ? wanted : [wanted]).some((one) => one === day);
}

function holds(subject: Subject, condition: Condition): boolean {
  const { field, op } = condition;
  const as = comparedField(field);
  if (as === undefined) return false;
  const value = valueIn(subject, field);
  if (op === 'empty') return isEmpty(value);
  if (op === 'filled') return !isEmpty(value);
  if (op === 'not') return !holds(subject, { ...condition, op: 'is' });
  if (as === 'day' || as === 'moment' || (as === 'own' && op === 'olderThan'))
    return dayFits(value, condition, subject.today);
  if (op === 'olderThan' && as !== 'number') return false;
  if (as === 'number' || (as === 'own' && typeof value === 'number')) return numberFits(numberOf(value), condition);
  if (as === 'map') return false;
  if (as === 'boolean') return value === (condition.value ?? null);
  const here = Array.isArray(value) ? value.map(said) : [value === null ? '' : said(value)];
  if (op === 'between') {
    const [least, most] = boundsOf(condition.value).map((one) => (one === null ? null : folded(one)));
    return here.some((one) => between(one, [least ?? null, most ?? null]));
  }
  const wanted = wordsOf(condition.value);
  return wanted.length > 0 && here.some((one) => wordFits(one, op, wanted));
}

/** It is live and shows something else than was sent, whether or not it needs somebody besides. */
const isDrifted = (one: { isLive?: boolean; drifted: boolean }) => Boolean(one.isLive) && one.drifted;

const isLive = (state: KnotState) => state === 'live' || state === 'changed' || state === 'conflict';

/** At which stages of the ribbon an item stands. */
export function stagesOf({ item, listings = [], sold = false }: Subject): Set<Stage> {
  const stages = new Set<Stage>();
  const any = (fits: (one: (typeof listings)[number]) => boolean) => listings.some(fits);
  if (item.title === '' || item.price === null) stages.add('intake');
  if (any((one) => one.state === 'draft' && one.blocking > 0)) stages.add('drafts');
  if (any((one) => one.state === 'draft' && one.blocking === 0)) stages.add('ready');
  if (any((one) => isLive(one.state))) stages.add('live');
  if (any((one) => one.state === 'changed' || one.state === 'conflict')) stages.add('changed');
  if (any(isDrifted)) stages.add('drift');
  if (any((one) => one.state === 'attention')) stages.add('attention');
  if (sold) stages.add('sold');
  return stages;
}

/** Letters as they are compared in a search: without case, without accents. */
const plainLetters = (text: string): string =>
  (/[^\u0020-\u007e]/.test(text) ? text.normalize('NFD').replace(/\p{M}+/gu, '') : text).toLowerCase();

/** The words that are searched for: letters and digits, two at least. */
export const searchedWords = (text: string): string[] =>
  (plainLetters(text).match(/[\p{L}\p{N}]+/gu) ?? []).filter((word) => word.length > 1);

/** Whether a word of the text begins so; both in plain letters. */
function hasWord(text: string, word: string): boolean {
  for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1))
    if (at === 0 || !/[\p{L}\p{N}]/u.test(text.charAt(at - 1))) return true;
  return false;
}

/** The fields in which words are searched for. */
export type Worded = Pick<Item, 'title' | 'sku' | 'brand' | 'model' | 'location'>;

/** Whether each of the words begins a word of the record. */
export function hasWords({ title, sku, brand, model, location }: Worded, text: string): boolean {
  const here = plainLetters([title, sku, brand, model, location].join('\n'));
  return searchedWords(text).every((word) => hasWord(here, word));
}

/** Whether a listing is in the state, and all that is said besides holds of it. */
function fits(
  { state, unsent, drifted, cause, liveForDays, netBelow }: ListingPart,
  one: NonNullable<Subject['listings']>[number],
  today: string,
): boolean {
  if (state === undefined ? one.state === 'none' : one.state !== state) return false;
  if (unsent && !(one.isLive && one.dirty)) return false;
  if (drifted && !isDrifted(one)) return false;
  if (cause !== undefined && !(one.state === 'attention' && one.cause === cause)) return false;
  if (netBelow !== undefined && (one.net === undefined || one.net === null || one.net >= netBelow)) return false;
  if (liveForDays === undefined) return true;
  return one.isLive === true && one.liveSince !== undefined && one.liveSince < daysBefore(today, liveForDays);
}

/** Whether an item is what a filter means. Pure; the database answers the same (`services/records/items/filter-sql`). */
export function matches(filter: Filter, subject: Subject): boolean {
  if ('all' in filter) return filter.all.every((one) => matches(one, subject));
  if ('any' in filter) return filter.any.some((one) => matches(one, subject));
  if ('stage' in filter) return stagesOf(subject).has(filter.stage);
  if ('words' in filter) return hasWords(subject.item, filter.words);
  if ('listing' in filter) {
    const { account, state } = filter.listing;
    const there = (subject.listings ?? []).filter((one) => account === undefined || one.accountId === account);
    if (state === 'none') return !there.some((one) => one.state !== 'none');
    return there.some((one) => fits(filter.listing, one, subject.today));
  }
  return holds(subject, filter);
}
