import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { savedSearch } from '../../db/schema';

/** Forgets a saved search; the items that it finds stay as they are. */
export async function removeSearch(id: number): Promise<void> {
  const [{ affectedRows }] = await database().delete(savedSearch).where(eq(savedSearch.id, id));
  if (affectedRows === 0) throw new NettingError('not-found', 'There is no such search');
}
