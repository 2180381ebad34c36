import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { removed, removedKinds } from '../../../db/schema';

export const findRemovedSchema = z.object({ kind: z.enum(removedKinds) });

export const removedSchema = z.object({
  id: z.number().describe('The number that it had, and gets again'),
  name: z.string(),
  byName: z.string(),
  at: z.string(),
});

/** What can be had back, by whom and when it was removed, the last one first. */
export async function findRemoved({
  kind,
}: z.infer<typeof findRemovedSchema>): Promise<{ removed: z.infer<typeof removedSchema>[] }> {
  const rows = await database()
    .select()
    .from(removed)
    .where(eq(removed.kind, kind))
    .orderBy(desc(removed.id))
    .limit(50);
  return { removed: rows.map(({ was, name, byName, at }) => ({ id: was, name, byName, at: at.toISOString() })) };
}
