import { type SQL, sql } from 'drizzle-orm';
import { type Filter, type ItemFilter, mentions, readFilter } from '../../../core/filter';
import { filterTerm } from './filter-sql';

/** A filter over what is worked with; what is archived or deleted is found only where the filter speaks of it. */
export const workedWith = (filter: Filter): SQL =>
  mentions(filter, 'standing') ? filterTerm(filter) : sql`i.archived = 0 and ${filterTerm(filter)}`;

/** The filters of an address as SQL over `i`, the item table. */
export const whereOf = (filter: ItemFilter): SQL => workedWith(readFilter(filter));
