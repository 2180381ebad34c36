import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { isDuplicate, transaction } from '../../db/client';
import { badge } from '../../db/schema';
import type { Actor } from '../access/actor';
import { keepRemoved, takeRemoved } from '../records/removed/removed';

/** Keeps a badge no longer; photos that carry it stay as they are. It can be had back. */
export async function removeBadge(actor: Actor, id: number): Promise<void> {
  await transaction(async (tx) => {
    const [old] = await tx.select().from(badge).where(eq(badge.id, id)).for('update');
    if (!old) throw new NettingError('not-found', 'This badge is not there any more');
    await keepRemoved(tx, actor, 'badge', old);
    await tx.delete(badge).where(eq(badge.id, id));
  });
}

/** A removed badge as it was, with the number that the photos that carry it know. */
export async function bringBackBadge(id: number): Promise<void> {
  await transaction(async (tx) => {
    const row = (await takeRemoved(tx, 'badge', id)) as typeof badge.$inferSelect; // only `removeBadge` keeps this kind
    try {
      await tx.insert(badge).values({ ...row, at: new Date(row.at) });
    } catch (error) {
      if (isDuplicate(error))
        throw new NettingError('conflict', `There is a badge ${row.name} already`, {
          fix: 'Call that one otherwise first',
        });
      throw error;
    }
  });
}
