import { brief } from '@/core/field/brief';
import { itemField } from '@/core/field/catalogue';
import { listingField } from '@/core/field/listing-fields';
import type { Json } from '@/core/json';

/** What a listing's field is called, also one of a marketplace's own. */
export const fieldName = (field: string): string => listingField(field)?.label ?? field;

/** What an item's field is called. */
export const itemFieldName = (field: string): string =>
  itemField(field)?.label ?? field.replace(/^(attributes|own)\./, '');

const said = (text: string) => text.replace(/\s+/g, ' ').trim() || 'nothing';

/** A value of a listing in words, as short as it can be read in a row. */
export function shownValue(field: string, value: Json, currency = 'EUR'): string {
  const kind = field === 'description' ? ({ is: 'rich', most: 0 } as const) : listingField(field)?.kind;
  if (!kind) return said(JSON.stringify(value));
  const entries = Array.isArray(value) && kind.is === 'text' ? value.map(String).join(', ') : value;
  return said(brief(kind, entries, { currency }));
}

/** A value of an item in words. */
export const shownItemValue = (field: string, value: Json, currency = 'EUR'): string => {
  const kind = itemField(field)?.kind;
  return said(
    kind ? brief(kind, value, { currency }) : typeof value === 'string' ? value : JSON.stringify(value ?? ''),
  );
};
