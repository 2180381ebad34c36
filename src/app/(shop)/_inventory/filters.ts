import { parseAsInteger, parseAsString, parseAsStringLiteral } from 'nuqs/server';
import { type Condition, filterSchema } from '@/core/filter/filter';
import { plainConditions } from '@/core/filter/plain';
import { sortNames } from '@/core/filter/sorting';
import { stages } from '@/core/filter/stages';
import { conditionIds, conditionLabel } from '@/core/item/condition';
import { amountToText } from '@/core/measure/money';
import { knotLabels, knotStates } from '@/core/sync/state';
import type { ItemFilter } from '@/services/records/item-filter';

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

const stageLabels: Record<(typeof stages)[number], string> = {
  intake: 'Intake',
  drafts: 'Drafts',
  ready: 'Ready',
  live: 'Live',
  changed: 'Changed',
  drift: 'Changed there',
  attention: 'Attention',
  sold: 'Sold',
};

/** Conditions over any field, as the address holds them; null where the address says more than a list of them. */
export function readWhere(text: string | null | undefined): Condition[] | null {
  if (!text) return [];
  try {
    const filter = filterSchema.safeParse(JSON.parse(text)).data;
    return filter ? plainConditions(filter) : null;
  } catch {
    return null;
  }
}

export const writeWhere = (conditions: readonly Condition[]): string | null =>
  conditions.length ? JSON.stringify({ all: conditions }) : null;

/** A filter as people read it on its chip. */
export function chipText(name: FilterName, filter: ItemFilter, accountName: (id: number) => string): string {
  switch (name) {
    case 'q':
      return `“${filter.q}”`;
    case 'stage':
      return filter.stage ? stageLabels[filter.stage] : '';
    case 'account':
      return `on ${accountName(filter.account ?? 0)}`;
    case 'state':
      return filter.state ? knotLabels[filter.state] : '';
    case 'condition':
      return conditionLabel(filter.condition ?? null);
    case 'brand':
      return `Brand ${filter.brand}`;
    case 'category':
      return `Category ${filter.category}`;
    case 'location':
      return `Place ${filter.location}`;
    case 'priceMin':
      return `Price from ${amountToText(filter.priceMin ?? 0, 'EUR')}`;
    case 'priceMax':
      return `Price to ${amountToText(filter.priceMax ?? 0, 'EUR')}`;
    case 'quantityMin':
      return `Stock from ${filter.quantityMin}`;
    case 'quantityMax':
      return `Stock to ${filter.quantityMax}`;
    case 'photosMax':
      return `At most ${filter.photosMax} photos`;
    case 'own':
      return (filter.own ?? '').replace(':', ' is ');
    case 'where':
      return 'A filter of several parts';
  }
}
