import { asc } from 'drizzle-orm';
import { z } from 'zod';
import { filterSchema, sortNames } from '../../core/filter';
import { database } from '../../db/client';
import { savedSearch } from '../../db/schema';

export const savedSearchSchema = z.object({
  id: z.number(),
  name: z.string(),
  filter: filterSchema,
  sort: z.enum(sortNames),
  dir: z.enum(['asc', 'desc']),
  byName: z.string(),
});
export type SavedSearch = z.infer<typeof savedSearchSchema>;

/** The searches that were given a name, by their names. */
export async function findSearches(): Promise<SavedSearch[]> {
  const rows = await database().select().from(savedSearch).orderBy(asc(savedSearch.name));
  return rows.map(({ at: _at, ...row }) => row);
}
