import { parseAsInteger, parseAsString, parseAsStringLiteral } from 'nuqs/server';
import { type ItemFilter, writeParts } from '@/core/filter/address';
import type { Filter } from '@/core/filter/filter';
import { sortNames } from '@/core/filter/sorting';
import { stages } from '@/core/filter/stages';
import { conditionIds } from '@/core/item/condition';
import { knotStates } from '@/core/sync/state';

/** What the address of the inventory says: filters and order. */
export const inventoryParams = {
  q: parseAsString,
  stage: parseAsStringLiteral(stages),
  account: parseAsInteger,
  state: parseAsStringLiteral(knotStates),
  brand: parseAsString,
  category: parseAsString,
  condition: parseAsStringLiteral(conditionIds),
  location: parseAsString,
  priceMin: parseAsInteger,
  priceMax: parseAsInteger,
  quantityMin: parseAsInteger,
  quantityMax: parseAsInteger,
  photosMax: parseAsInteger,
  own: parseAsString,
  where: parseAsString,
  sort: parseAsStringLiteral(sortNames).withDefault('updated'),
  dir: parseAsStringLiteral(['asc', 'desc'] as const).withDefault('desc'),
};

export type InventoryQuery = {
  [K in keyof typeof inventoryParams]: ReturnType<(typeof inventoryParams)[K]['parseServerSide']>;
};
export type FilterName = Exclude<keyof typeof inventoryParams, 'sort' | 'dir'>;
export const filterNames = Object.keys(inventoryParams).filter(
  (name): name is FilterName => name !== 'sort' && name !== 'dir',
);

export function filterOf(query: InventoryQuery): ItemFilter {
  return Object.fromEntries(
    filterNames.flatMap((name) => (query[name] === null || query[name] === '' ? [] : [[name, query[name]]])),
  ) as ItemFilter; // names and types are those of the parameters above
}

/** Every filter besides the words and the stage, taken out of the address. */
export const nothingSaid: Partial<Record<FilterName, null>> = Object.fromEntries(
  filterNames.filter((name) => name !== 'q' && name !== 'stage').map((name) => [name, null]),
);

/** A change of the address to these parts, said in the one form; what was said the short way is said in it, too. */
export const partsChange = (parts: readonly Filter[]): Partial<Record<FilterName, string | null>> => ({
  ...nothingSaid,
  where: writeParts(parts),
});

/** Rows that come first: as many as are seen, and some more. */
export const firstRows = 40;
