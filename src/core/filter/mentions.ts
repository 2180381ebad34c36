import type { Filter } from './filter';

/** Whether a filter compares this field anywhere. */
export function mentions(filter: Filter, field: string): boolean {
  if ('all' in filter) return filter.all.some((one) => mentions(one, field));
  if ('any' in filter) return filter.any.some((one) => mentions(one, field));
  return 'field' in filter && filter.field === field;
}

/** Whether a filter asks what is left of a listing's price. */
export function mentionsNet(filter: Filter): boolean {
  if ('all' in filter) return filter.all.some(mentionsNet);
  if ('any' in filter) return filter.any.some(mentionsNet);
  return 'listing' in filter && filter.listing.netBelow !== undefined;
}
