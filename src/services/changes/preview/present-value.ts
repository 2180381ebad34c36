import { isMeant } from '../../../core/change';
import { type Catalogue, type Field, fieldValue } from '../../../core/field';
import type { Item } from '../../../core/item';
import { type Json, ownValue } from '../../../core/json';
import type { ListingRow } from '../../../db/schema';
import { itemRecord } from '../../records/items/item-record';
import type { Recorded } from '../undo/run-records';

/** The field that was changed, where it was changed. */
export const recordedField = (
  { combination, accountId, field }: Pick<Recorded, 'combination' | 'accountId' | 'field'>,
  catalogue: Catalogue,
): Field | undefined =>
  combination !== null
    ? catalogue.combination(field)
    : accountId !== null
      ? catalogue.listing(field)
      : catalogue.item(field);

/** What stands there now; `row`: the listing on the account that it is of. */
export function presentValue(item: Item, row: ListingRow | undefined, one: Recorded): Json {
  if (one.combination !== null) {
    const found = item.variations.find((other) => other.key === one.combination);
    return (found as unknown as Record<string, Json> | undefined)?.[one.field] ?? null; // a combination holds JSON values only
  }
  if (one.accountId === null) return fieldValue(item, one.field);
  if (one.field === 'target') return row ? isMeant(itemRecord(item, [row]), one.accountId) : false;
  return ownValue(row?.overrides ?? {}, one.field) ?? null;
}
