import { type Catalogue, type Field, fieldValue } from '../../core/field';
import type { Item } from '../../core/item';
import { type Json, ownValue } from '../../core/json';
import type { Recorded } from './run-records';

/** The field that was changed, where it was changed. */
export const recordedField = ({ combination, accountId, field }: Recorded, catalogue: Catalogue): Field | undefined =>
  combination !== null
    ? catalogue.combination(field)
    : accountId !== null
      ? catalogue.listing(field)
      : catalogue.item(field);

/** What stands there now. */
export function presentValue(item: Item, overrides: Record<string, Json> | undefined, one: Recorded): Json {
  if (one.combination !== null) {
    const row = item.variations.find((other) => other.key === one.combination);
    return (row as unknown as Record<string, Json> | undefined)?.[one.field] ?? null; // a combination holds JSON values only
  }
  return one.accountId !== null ? (ownValue(overrides ?? {}, one.field) ?? null) : fieldValue(item, one.field);
}
