import { itemField } from '../field/catalogue';
import type { Field } from '../field/field';
import type { Json } from '../json';

/** How a field is compared: as words, as a number, as a day, as yes or no, or entry by entry. */
export type Compared = 'words' | 'number' | 'day' | 'moment' | 'boolean' | 'list' | 'map';

/** What filters know besides the catalogue. */
const facts: Record<string, Compared> = {
  photoCount: 'number',
  /** Letters and signs of the title. */
  titleLength: 'number',
  /** Whole days since it was last sold, or else recorded. */
  unsoldDays: 'number',
  createdAt: 'moment',
  updatedAt: 'moment',
};

/** How values of a kind are compared. */
export function comparedAs(kind: Field['kind']): Compared {
  switch (kind.is) {
    case 'money':
    case 'whole':
    case 'number':
    case 'weight':
    case 'length':
      return 'number';
    case 'date':
      return 'day';
    case 'boolean':
      return 'boolean';
    case 'list':
    case 'photos':
    case 'size':
      return 'list';
    case 'map':
    case 'axes':
    case 'combinations':
    case 'priceRule':
      return 'map';
    default:
      return 'words';
  }
}

/** How a field that is named in a filter is compared; of one's own fields the value itself tells. Undefined: no such field. */
export function comparedField(field: string): Compared | 'own' | undefined {
  if (field in facts) return facts[field];
  if (field.startsWith('attributes.')) return 'words';
  if (field.startsWith('own.')) return 'own';
  const known = itemField(field);
  return known && comparedAs(known.kind);
}

/** Words that are looked for, as they are compared. */
export const folded = (value: Json): string => String(value).toLowerCase().trim();

/** Words that stand in the record, as they are compared: blanks behind them say nothing. */
export const said = (value: Json): string => String(value).toLowerCase().replace(/ +$/, '');

export const wordsOf = (value: Json | undefined): string[] =>
  (Array.isArray(value) ? value : value === undefined || value === null ? [] : [value]).map(folded);

export const numberOf = (value: Json | undefined): number | null =>
  typeof value === 'number'
    ? value
    : typeof value === 'string' && value.trim() !== '' && !Number.isNaN(Number(value))
      ? Number(value)
      : null;

/** The bounds of `between`; null where there is none. */
export const boundsOf = (value: Json | undefined): [Json, Json] =>
  Array.isArray(value) ? [value[0] ?? null, value[1] ?? null] : [value ?? null, null];

/** Whole days (UTC) from one day to another, each as 2026-11-23. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);

/** The day (UTC) so many days before another, as 2026-11-23. */
export const daysBefore = (today: string, days: number): string =>
  new Date(Date.parse(`${today}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10);
