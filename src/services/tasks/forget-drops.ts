import { and, eq, inArray, lt, or } from 'drizzle-orm';
import { database } from '../../db/client';
import { droppedFile, photoDrop } from '../../db/schema';

const keptDays = { closed: 7, open: 120 };
const portion = 50;

/** Drops that are done with, and those that nobody came back to; photos that were added stay on their items. */
export async function forgetDrops(now: Date): Promise<void> {
  const db = database();
  const before = (days: number) => new Date(now.getTime() - days * 86_400_000);
  const old = await db
    .select({ id: photoDrop.id })
    .from(photoDrop)
    .where(
      or(
        and(eq(photoDrop.state, 'closed'), lt(photoDrop.at, before(keptDays.closed))),
        lt(photoDrop.at, before(keptDays.open)),
      ),
    )
    .limit(portion);
  const ids = old.map((one) => one.id);
  if (ids.length === 0) return;
  await db.delete(droppedFile).where(inArray(droppedFile.dropId, ids));
  await db.delete(photoDrop).where(inArray(photoDrop.id, ids));
}
