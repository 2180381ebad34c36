import type { Filter } from './filter';

type Part = Exclude<Filter, { all: Filter[] } | { any: Filter[] }>;

const somePart = (filter: Filter, fits: (part: Part) => boolean): boolean =>
  'all' in filter
    ? filter.all.some((one) => somePart(one, fits))
    : 'any' in filter
      ? filter.any.some((one) => somePart(one, fits))
      : fits(filter);

/** Whether a filter compares this field anywhere. */
export const mentions = (filter: Filter, field: string): boolean =>
  somePart(filter, (part) => 'field' in part && part.field === field);

/** Whether a filter asks what is left of a listing's price. */
export const mentionsNet = (filter: Filter): boolean =>
  somePart(filter, (part) => 'listing' in part && part.listing.netBelow !== undefined);
