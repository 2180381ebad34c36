import type { Catalogue } from '../field/catalogue';
import type { Field } from '../field/field';
import { homeCurrency } from '../measure/money';
import { type Column, columnLabel, placeOf } from './column';

/** An account as far as a file names it. */
export type ColumnAccount = { id: number; name: string; currency: string; catalogue: Catalogue };

const rowLabels = { item: 'Item', variation: 'Variation', key: 'Variation key' };
const remoteLabels = { number: 'Listing number', link: 'Link', state: 'State' };

const column = (id: string, label: string, place: Column['place'], field: Field | null, currency: string): Column => ({
  id,
  label,
  place,
  field,
  currency,
});

/**
 * A column by its id.
 * @returns undefined when there is no such field, or no such account
 */
export function columnOf(id: string, catalogue: Catalogue, accounts: readonly ColumnAccount[]): Column | undefined {
  const place = placeOf(id);
  if (!place) return undefined;
  if (place.of === 'row') return column(id, rowLabels[place.what], place, null, homeCurrency);
  if (place.of === 'item') {
    const field = catalogue.item(place.field);
    return field && !field.traits.byItself ? column(id, field.label, place, field, homeCurrency) : undefined;
  }
  const account = accounts.find((one) => one.id === place.account);
  if (!account) return undefined;
  if (place.of === 'remote')
    return column(id, columnLabel(remoteLabels[place.what], account.name), place, null, account.currency);
  const field = account.catalogue.listing(place.field);
  return field && column(id, columnLabel(field.label, account.name), place, field, account.currency);
}

/** What one writes out when nothing is chosen, in the order of a sheet. */
export const usualColumns = [
  'row.item',
  'sku',
  'row.variation',
  'row.key',
  'title',
  'brand',
  'model',
  'category',
  'condition',
  'conditionNote',
  'price',
  'cost',
  'quantity',
  'location',
  'barcode',
  'keywords',
  'description',
];
