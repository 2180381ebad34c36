import { and, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { database, type Tx } from '../../../db/client';
import { removed } from '../../../db/schema';
import type { Actor } from '../../access/actor';

type Kind = (typeof removed.$inferSelect)['kind'];

export const removedSchema = z.object({
  id: z.number().describe('The number that it had, and gets again'),
  name: z.string(),
  byName: z.string(),
  at: z.string(),
});
/** What was removed, by whom and when. */
export type Removed = z.infer<typeof removedSchema>;

/** Keeps what is thrown away, as it was: who did it by mistake has it back for a while. */
export async function keepRemoved(
  tx: Tx,
  { name: byName }: Actor,
  kind: Kind,
  row: { id: number; name: string },
): Promise<void> {
  await tx.insert(removed).values({ kind, was: row.id, name: row.name, row, byName, at: new Date() });
}

/**
 * Hands out what was thrown away, for it to be kept again; it is not among the removed any more.
 * @throws NettingError not-found where it is there already, or was thrown away too long ago
 */
export async function takeRemoved(tx: Tx, kind: Kind, was: number): Promise<unknown> {
  const which = and(eq(removed.kind, kind), eq(removed.was, was));
  const [kept] = await tx.select().from(removed).where(which).for('update');
  if (!kept) throw new NettingError('not-found', 'It is there again already, or was removed too long ago');
  await tx.delete(removed).where(which);
  return kept.row;
}

/** What can be had back, the last one first. */
export async function findRemoved(kind: Kind): Promise<Removed[]> {
  const rows = await database()
    .select()
    .from(removed)
    .where(eq(removed.kind, kind))
    .orderBy(desc(removed.id))
    .limit(50);
  return rows.map(({ was, name, byName, at }) => ({ id: was, name, byName, at: at.toISOString() }));
}
