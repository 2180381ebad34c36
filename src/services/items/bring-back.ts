import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { itemPatchSchema } from '../../core/item';
import type { Json } from '../../core/json';
import { database } from '../../db/client';
import { changeRecord, listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { setOverride } from '../changes/set-override';
import { updateItem } from '../changes/update-item';
import { loadItem } from '../records/load-items';
import { orderPhotos } from './order-photos';

/** Brings one field back to what it was before a change. That is a change itself and can be returned again. */
export async function returnChange(actor: Actor, itemId: number, changeId: number): Promise<{ field: string }> {
  const db = database();
  const [row] = await db.select().from(changeRecord).where(eq(changeRecord.id, changeId));
  if (!row || row.itemId !== itemId) throw new NettingError('not-found', 'There is no such change');
  const { field, from } = row;
  if (row.why === 'sale') throw new NettingError('invalid', 'What was sold is not brought back like this', { field });
  if (field === 'created' || field === 'quantity' || field === 'target')
    throw new NettingError('invalid', 'This is not a field that can be brought back', { field });
  if (row.listingId) {
    const [there] = await db
      .select({ accountId: listing.accountId })
      .from(listing)
      .where(eq(listing.id, row.listingId));
    if (!there) throw new NettingError('not-found', 'The listing is gone');
    const value = from === null ? {} : { value: from as Json }; // written by setDifference, which takes JSON only
    await setOverride(actor, itemId, there.accountId, { field, ...value });
    return { field };
  }
  if (field === 'photos') {
    await orderPhotos(actor, itemId, { photos: z.array(z.string()).parse(from) });
    return { field };
  }
  const patch = itemPatchSchema.parse({ [field]: from });
  const { version } = await loadItem(db, itemId);
  await updateItem(actor, itemId, { baseVersion: version, patch });
  return { field };
}
