import type { Placement, Plan, Units, Warehouse } from './types';

/** Cents a unit: a spread over all warehouses is free, fewer of them cost. */
const placingFees: Record<Plan['spread'], number> = { wide: 0, few: 12, one: 30 };
const counts: Record<Plan['spread'], number> = { wide: 3, few: 2, one: 1 };

/** How it is split when it is asked for the first time, again, and once more. */
export const spreads = ['wide', 'few', 'one'] as const satisfies Plan['spread'][];

/**
 * Units over warehouses that take goods in: each stock number goes round, its units in equal parts as far as they go, and
 * where it begins differs from one asking to the next.
 */
export function split(
  units: readonly Units[],
  open: readonly Warehouse[],
  spread: Plan['spread'],
  turn: number,
): Placement[] {
  const chosen = open.map((_, index) => open[(index + turn) % open.length]).slice(0, counts[spread]);
  const parts = new Map<string, Units[]>();
  for (const [at, one] of units.entries()) {
    const share = Math.floor(one.quantity / chosen.length);
    for (const [index, warehouse] of chosen.entries()) {
      if (!warehouse) continue;
      const isEarly = (index - at + chosen.length * units.length) % chosen.length < one.quantity % chosen.length;
      const quantity = share + (isEarly ? 1 : 0);
      if (quantity > 0) parts.set(warehouse.id, [...(parts.get(warehouse.id) ?? []), { ...one, quantity }]);
    }
  }
  return [...parts].map(([warehouse, some]) => ({
    warehouse,
    units: some,
    placing: some.reduce((sum, one) => sum + one.quantity, 0) * placingFees[spread],
  }));
}
