import { eq } from 'drizzle-orm';
import type { Placing } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { artwork } from '../../db/schema';

/** Places artwork once; on every product it stands in proportion to what is printed on. */
export async function setPlacing(itemId: number, placing: Placing): Promise<void> {
  const [known] = await database().select({ id: artwork.itemId }).from(artwork).where(eq(artwork.itemId, itemId));
  if (!known) throw new NettingError('not-found', 'This item is no artwork');
  await database().update(artwork).set({ placing }).where(eq(artwork.itemId, itemId));
}
