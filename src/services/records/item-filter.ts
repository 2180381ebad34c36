import { type SQL, sql } from 'drizzle-orm';
import { type ItemFilter, readFilter } from '../../core/filter';
import { filterTerm } from './filter-sql';

/** The filters of an address as SQL over `i`, the item table. */
export const whereOf = (filter: ItemFilter): SQL => sql`i.archived = 0 and ${filterTerm(readFilter(filter))}`;
