import { combinationFields } from '../field/combination-fields';
import type { Field } from '../field/field';
import { fieldValue } from '../field/item-values';
import type { Item } from '../item/item';
import { combinationWords, type Variation } from '../item/variations';
import { type Json, ownValue } from '../json';
import type { Content } from '../listing/fields';
import type { Column } from './column';

/** What a row of a file is written of. */
export type TableRecord = {
  item: Item;
  /** By account: what the listing gets there, and what is known of it. */
  listings: ReadonlyMap<number, { content: Content; number: string; link: string; state: string }>;
};

/** A combination's key as no spreadsheet takes it for a number: some are made of digits, or of digits and an `e`. */
export const shownKey = (key: string): string => `v-${key}`;
export const readKey = (text: string): string => text.trim().replace(/^v-/i, '');

/** One row: an item, or one combination of it. */
export type TableRow = { item: number; combination: string | null; cells: string[] };

/** The field of a combination that stands in this column; undefined where a combination has none. */
export function combinationFieldIn(column: Column): Field | undefined {
  if (column.place.of !== 'item') return undefined;
  const { field } = column.place;
  return field === 'sku' || field === 'quantity' || field === 'price' || field === 'barcode'
    ? combinationFields[field]
    : undefined;
}

/** What a column holds of an item, as a value of its field; null where it is no value. */
export function valueIn({ item, listings }: TableRecord, { place, field }: Column): Json {
  if (place.of === 'item') return fieldValue(item, place.field);
  if (place.of === 'listing')
    return ownValue(listings.get(place.account)?.content ?? {}, place.field) ?? field?.empty ?? null;
  return null;
}

function itemCell(record: TableRecord, column: Column): string {
  const { place, field, currency } = column;
  if (place.of === 'row') return place.what === 'item' ? String(record.item.id) : '';
  if (place.of === 'remote') return record.listings.get(place.account)?.[place.what] ?? '';
  return field ? field.show(valueIn(record, column), { currency }) : '';
}

/** What a column holds of one combination, as a value. */
export const combinationValue = (row: Variation, { id }: Field): Json =>
  (row as unknown as Record<string, Json>)[id] ?? null; // a combination holds JSON values only

function combinationCell({ item }: TableRecord, row: Variation, column: Column): string {
  const { place, currency } = column;
  if (place.of === 'row')
    return place.what === 'item'
      ? String(item.id)
      : place.what === 'key'
        ? shownKey(row.key)
        : combinationWords(row.values);
  const field = combinationFieldIn(column);
  return field ? field.show(combinationValue(row, field), { currency }) : '';
}

/** An item as rows of a file: its own, and one for each of its combinations. */
export function rowsOf(record: TableRecord, columns: readonly Column[]): TableRow[] {
  const { item } = record;
  return [
    { item: item.id, combination: null, cells: columns.map((column) => itemCell(record, column)) },
    ...item.variations.map((row) => ({
      item: item.id,
      combination: row.key,
      cells: columns.map((column) => combinationCell(record, row, column)),
    })),
  ];
}
