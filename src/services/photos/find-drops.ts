import { desc, eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { photoDrop } from '../../db/schema';
import { countsOf, type Drop, dropOf } from './drop-counts';

/** What was dropped and is not done with, newest first. */
export async function findDrops(): Promise<{ drops: Drop[] }> {
  const rows = await database()
    .select()
    .from(photoDrop)
    .where(eq(photoDrop.state, 'open'))
    .orderBy(desc(photoDrop.id))
    .limit(50);
  const counted = await countsOf(rows.map((row) => row.id));
  return { drops: rows.map((row) => dropOf(row, counted.get(row.id))) };
}
