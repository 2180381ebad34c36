import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { filterSchema, sortNames } from '../../core/filter';
import { database, isDuplicate } from '../../db/client';
import { savedSearch } from '../../db/schema';
import type { Actor } from '../access/actor';

export const newSearchSchema = z
  .object({
    name: z.string().trim().min(1, 'Give it a name').max(80),
    filter: filterSchema,
    sort: z.enum(sortNames).default('updated'),
    dir: z.enum(['asc', 'desc']).default('desc'),
  })
  .strict();

/** Keeps a search of the inventory under a name of its own. */
export async function saveSearch(actor: Actor, input: z.infer<typeof newSearchSchema>): Promise<{ id: number }> {
  try {
    const [{ insertId: id }] = await database()
      .insert(savedSearch)
      .values({ ...input, byName: actor.name, at: new Date() });
    return { id };
  } catch (error) {
    if (isDuplicate(error))
      throw new NettingError('conflict', `There is a search called ${input.name} already`, {
        field: 'name',
        fix: 'Give it another name, or remove that one first',
      });
    throw error;
  }
}
