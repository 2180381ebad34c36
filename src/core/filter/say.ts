import { attributeField, itemField } from '../field/catalogue';
import { ownField } from '../field/custom-field';
import type { Field } from '../field/field';
import type { FieldContext } from '../field/kind';
import type { CustomField } from '../item/custom-fields';
import type { Json } from '../json';
import { amountToText, homeCurrency } from '../measure/money';
import { knotLabels } from '../sync/state';
import { boundsOf, comparedField } from './compared';
import type { Condition, Filter, FilterOperator, ListingPart } from './filter';
import { stageLabels } from './stages';

export const operatorWords: Record<FilterOperator, string> = {
  is: 'is',
  not: 'is not',
  contains: 'contains',
  begins: 'begins with',
  ends: 'ends with',
  oneOf: 'is one of',
  between: 'is between',
  empty: 'is empty',
  filled: 'is not empty',
  olderThan: 'is older than',
};

/** The field that a condition names, as the catalogue knows it. */
export function filterField(id: string, custom: readonly CustomField[] = []): Field | undefined {
  if (id.startsWith('attributes.')) return attributeField(id.slice('attributes.'.length));
  const own = custom.find((one) => `own.${one.key}` === id);
  return own ? ownField(own) : itemField(id);
}

const factNames: Record<string, string> = {
  photoCount: 'Number of photos',
  titleLength: 'Length of the title',
  unsoldDays: 'Days without a sale',
  createdAt: 'Recorded',
  updatedAt: 'Changed',
};

export const filterFieldName = (id: string, custom: readonly CustomField[] = []): string =>
  factNames[id] ?? filterField(id, custom)?.label ?? id.replace(/^own\./, '');

/** Comparisons that make sense for a field. */
export function operatorsFor(id: string): FilterOperator[] {
  switch (comparedField(id)) {
    case 'number':
      return ['is', 'not', 'between', 'empty', 'filled'];
    case 'day':
    case 'moment':
      return ['olderThan', 'between', 'is', 'empty', 'filled'];
    case 'map':
      return ['empty', 'filled'];
    case 'list':
      return ['contains', 'is', 'not', 'empty', 'filled'];
    default:
      return ['is', 'not', 'begins', 'contains', 'ends', 'oneOf', 'between', 'empty', 'filled'];
  }
}

const apart = '; ';

/** A condition's value as it is typed: `12.90`, `B1`, `Brask; Orvane`, `10 to 20`. */
export function writeConditionValue(condition: Condition, field: Field | undefined, context: FieldContext): string {
  const { op, value } = condition;
  const one = (said: Json | undefined): string => {
    if (said === undefined || said === null) return '';
    if (op === 'olderThan' || !field || field.kind.is === 'list' || field.kind.is === 'photos') return String(said);
    if (field.kind.is === 'money' && typeof said === 'string' && /^\d+$/.test(said))
      return field.show(Number(said), context);
    return field.show(said, context);
  };
  if (op === 'between') {
    const [least, most] = boundsOf(value);
    return `${one(least)} to ${one(most)}`.trim();
  }
  return Array.isArray(value) ? value.map(one).join(apart) : one(value);
}

/** What was typed as a condition's value; a problem where the field cannot hold it. */
export function readConditionValue(
  op: FilterOperator,
  text: string,
  field: Field | undefined,
  context: FieldContext,
): { value: Json } | { problem: string } {
  const one = (said: string): { value: Json } | { problem: string } => {
    if (op === 'contains' || op === 'begins' || op === 'ends' || !field) return { value: said };
    if (field.kind.is === 'list' || field.kind.is === 'text' || field.kind.is === 'rich') return { value: said };
    return field.read(said, context);
  };
  if (op === 'olderThan')
    return /^\d{1,5}$/.test(text.trim()) ? { value: Number(text) } : { problem: 'Write a number of days' };
  const parts = op === 'between' ? text.split(/\s*\bto\b\s*/) : op === 'oneOf' ? text.split(/\s*;\s*/) : [text];
  const values: Json[] = [];
  for (const part of parts) {
    const read = op === 'between' && part.trim() === '' ? { value: null } : one(part.trim());
    if ('problem' in read) return read;
    values.push(read.value);
  }
  if (op === 'between') return { value: [values[0] ?? null, values[1] ?? null] };
  return { value: op === 'oneOf' ? values : (values[0] ?? null) };
}

/** A condition as people read it on its chip. */
export function sayCondition(condition: Condition, custom: readonly CustomField[], context: FieldContext): string {
  const field = filterField(condition.field, custom);
  const name = filterFieldName(condition.field, custom);
  const { op } = condition;
  if (op === 'between') {
    const [least, most] = boundsOf(condition.value);
    const said = (value: Json) => writeConditionValue({ ...condition, op: 'is', value }, field, context);
    if (least !== null && most !== null) return `${name} is between ${said(least)} and ${said(most)}`;
    if (least !== null) return `${name} is at least ${said(least)}`;
    return most === null ? `${name} is anything` : `${name} is at most ${said(most)}`;
  }
  const value = writeConditionValue(condition, field, context);
  const unit = op === 'olderThan' ? ' days' : '';
  return [name, operatorWords[op], value ? `${value}${unit}` : ''].filter(Boolean).join(' ');
}

export type SayContext = FieldContext & {
  custom: readonly CustomField[];
  accountName: (id: number) => string;
};

function sayListing({ account, state, ...more }: ListingPart, { accountName }: SayContext): string {
  const marks = [
    ...(more.unsent ? ['changes not sent'] : []),
    ...(more.drifted ? ['changed there'] : []),
    ...(more.liveForDays === undefined ? [] : [`not renewed for ${more.liveForDays} days`]),
    ...(more.netBelow === undefined ? [] : [`net below ${amountToText(more.netBelow, homeCurrency)}`]),
    ...(more.cause === undefined ? [] : [`“${more.cause}”`]),
  ];
  const where = account === undefined ? '' : `on ${accountName(account)}`;
  const what = state === undefined ? (marks.length ? '' : 'Listed') : knotLabels[state];
  const said = [[what, ...marks].filter(Boolean).join(', '), where].filter(Boolean).join(' ');
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** Any part of a filter as people read it on its chip. */
export function sayFilter(filter: Filter, context: SayContext): string {
  if ('all' in filter) return sayMany(filter.all, 'and', context);
  if ('any' in filter) return sayMany(filter.any, 'or', context);
  if ('listing' in filter) return sayListing(filter.listing, context);
  if ('stage' in filter) return stageLabels[filter.stage];
  if ('words' in filter) return `“${filter.words}”`;
  return sayCondition(filter, context.custom, context);
}

function sayMany(parts: readonly Filter[], word: 'and' | 'or', context: SayContext): string {
  if (parts.length === 0) return word === 'and' ? 'Anything' : 'Nothing';
  return parts
    .map((part) => (isGroup(part) && parts.length > 1 ? `(${sayFilter(part, context)})` : sayFilter(part, context)))
    .join(` ${word} `);
}

const isGroup = (part: Filter): boolean =>
  ('all' in part && part.all.length > 1) || ('any' in part && part.any.length > 1);
