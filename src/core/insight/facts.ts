import type { Layer } from './layers';

/** Days are counted from 1970-01-01, UTC. */
export type Day = number;
const dayMs = 86_400_000;
export const dayNumber = (day: string): Day => Math.floor(Date.parse(`${day}T00:00:00Z`) / dayMs);
export const dayName = (day: Day): string => new Date(day * dayMs).toISOString().slice(0, 10);

const months = new Map<Day, string>();
/** The month of a day, as `2026-11`; each day is asked for very often. */
export function monthName(day: Day): string {
  let name = months.get(day);
  if (name === undefined) {
    name = dayName(day).slice(0, 7);
    months.set(day, name);
  }
  return name;
}

/** A line of an order, brought home to the shop's currency by the rate of its day. */
export type SaleFact = {
  day: Day;
  accountId: number | null;
  itemId: number | null;
  quantity: number;
  isCancelled: boolean;
  /** What the buyer paid, and the parts of the fee; null where no rate was known. */
  amounts: { taken: number; commission: number; payment: number; handling: number; otherFees: number } | null;
  postage: number;
  packing: number;
  /** Of one piece; null where nobody wrote it down. */
  cost: number | null;
};

/** Units that came and went together. `outDay` is null while they are here. */
export type LayerFact = { units: number; inDay: Day; outDay: Day | null; how: Layer['how'] };

/** What is known of an item when one looks back. */
export type ItemFact = {
  category: string;
  brand: string;
  supplier: string;
  batch: string;
  condition: string;
  price: number | null;
  cost: number | null;
  standing: 'active' | 'archived' | 'deleted';
  /** A whole set that is one stock with its parts: they are there already. */
  isWhole: boolean;
  listedDay: Day | null;
  cutDay: Day | null;
  renewedDay: Day | null;
  crossedDay: Day | null;
  /** Its accounts in the order in which it came onto them. */
  places: readonly number[];
};

/** All that is looked back at. */
export type Facts = {
  sales: ReadonlyMap<number, SaleFact>;
  layers: ReadonlyMap<number, readonly LayerFact[]>;
  items: ReadonlyMap<number, ItemFact>;
  today: Day;
};

/** Whose sales and stock: these items (null for all), and of sales one account. */
export type Scope = { items: ReadonlySet<number> | null; soldOn: number | null };

/** Sales of a scope within days, the last of which counts, too. */
export function salesIn(facts: Facts, scope: Scope, from: Day, to: Day): SaleFact[] {
  const found: SaleFact[] = [];
  for (const sale of facts.sales.values()) {
    if (sale.day < from || sale.day > to) continue;
    if (scope.soldOn !== null && sale.accountId !== scope.soldOn) continue;
    if (scope.items && (sale.itemId === null || !scope.items.has(sale.itemId))) continue;
    found.push(sale);
  }
  return found;
}

/** The how manieth of its places sold it, 4 for the fourth or a later one; null where that is not known. */
export function nthPlace({ items }: Pick<Facts, 'items'>, { itemId, accountId }: SaleFact): number | null {
  if (itemId === null || accountId === null) return null;
  const at = items.get(itemId)?.places.indexOf(accountId) ?? -1;
  return at < 0 ? null : Math.min(at + 1, 4);
}

/** Looks at the layers of a scope with their items; of an account at those of items that have stood there. */
export function eachLayer(
  facts: Facts,
  scope: Scope,
  look: (item: ItemFact, layer: LayerFact, itemId: number) => void,
): void {
  for (const [itemId, layers] of facts.layers) {
    const item = facts.items.get(itemId);
    if (!item || item.isWhole || item.standing === 'deleted') continue;
    if (scope.items && !scope.items.has(itemId)) continue;
    if (scope.soldOn !== null && !item.places.includes(scope.soldOn)) continue;
    for (const layer of layers) look(item, layer, itemId);
  }
}
