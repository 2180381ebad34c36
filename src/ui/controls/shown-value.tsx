import type { Json } from '@/core/json';
import { fieldLabels } from '@/core/listing/fields';
import { formatMoney } from '@/core/measure/money';

/** What a listing's field is called, also one of a marketplace's own. */
export const fieldName = (field: string): string =>
  field in fieldLabels
    ? fieldLabels[field as keyof typeof fieldLabels] // tested just before
    : field
        .replace(/^(attr|extra)\./, '')
        .replace(/[_-]+/g, ' ')
        .replace(/^./, (letter) => letter.toUpperCase());

const plain = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** A value of a listing in words, as short as it can be read in a row. */
export function shownValue(field: string, value: Json, currency = 'EUR'): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (field === 'price' && typeof value === 'number') return formatMoney(value, currency);
  if (typeof value === 'string') return plain(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return field === 'photos'
      ? `${value.length} ${value.length === 1 ? 'photo' : 'photos'}`
      : value.map((one) => (typeof one === 'string' ? one : JSON.stringify(one))).join(', ');
  return typeof value === 'object' ? JSON.stringify(value) : String(value);
}
