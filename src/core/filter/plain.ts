import { isCondition } from './address';
import type { Condition, Filter } from './filter';

/** The conditions of a filter that is a plain list of them, all of which must hold; null where it says more than that. */
export function plainConditions(filter: Filter | null): Condition[] | null {
  if (filter === null) return [];
  if (!('all' in filter)) return null;
  const found = filter.all.filter(isCondition);
  return found.length === filter.all.length ? found : null;
}
