import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { badge } from '../../db/schema';

/** Keeps a badge no longer; photos that carry it stay as they are. */
export async function removeBadge(id: number): Promise<void> {
  await database().delete(badge).where(eq(badge.id, id));
}
