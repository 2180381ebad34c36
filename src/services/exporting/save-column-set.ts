import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { columnSet } from '../../db/schema';
import type { Actor } from '../access/actor';

export const saveColumnSetSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    columns: z.array(z.string().max(120)).min(1, 'Choose at least one column').max(200),
  })
  .strict();

/** Keeps columns under a name; the same name holds the newest ones. */
export async function saveColumnSet(
  actor: Actor,
  { name, columns }: z.infer<typeof saveColumnSetSchema>,
): Promise<{ id: number }> {
  const set = { columns, byName: actor.name, updatedAt: new Date() };
  const db = database();
  await db
    .insert(columnSet)
    .values({ name, ...set })
    .onDuplicateKeyUpdate({ set });
  const [kept] = await db.select({ id: columnSet.id }).from(columnSet).where(eq(columnSet.name, name));
  return { id: kept?.id ?? 0 };
}
