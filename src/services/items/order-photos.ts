import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type Executor, transaction } from '../../db/client';
import { changeRecord, photoFile } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { knownPhotos } from '../records/photos/known-photos';
import { photoChanges } from './photo-changes';

export const hash = z.string().regex(/^[0-9a-f]{64}$/);

/** The photos in their new order; leaving one out removes it, naming one twice shows it twice. */
export const orderPhotosSchema = z.object({ photos: z.array(hash).max(60) }).strict();

/** Puts the photos into a new order, removes or repeats some. The originals are kept. */
export async function orderPhotos(
  actor: Actor,
  itemId: number,
  { photos }: z.infer<typeof orderPhotosSchema>,
): Promise<{ photos: string[] }> {
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        async ({ items: [item], listings }) => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const here = item.photos.map((photo) => photo.hash);
          const strange = photos.some((one) => !here.includes(one));
          if (strange && !(await wasHere(tx, itemId, here, photos)))
            throw new NettingError('invalid', 'One of these photos does not belong to the item', { field: 'photos' });
          return photoChanges(item, listings, photos);
        },
        { actor, why: 'typing', at: new Date(), send: 'falls', photos: await knownPhotos(tx, photos) },
      ),
    );
    return { photos: items[0]?.item.photos.map((photo) => photo.hash) ?? [] };
  });
}

/** Photos that were on the item once may come back, and the originals of those that are: a copied item has both unseen. */
async function wasHere(db: Executor, itemId: number, here: string[], photos: string[]): Promise<boolean> {
  const rows = await db
    .select({ from: changeRecord.from, to: changeRecord.to })
    .from(changeRecord)
    .where(and(eq(changeRecord.itemId, itemId), eq(changeRecord.field, 'photos')));
  const known = new Set(rows.flatMap(({ from, to }) => [from, to]).flatMap((one) => (Array.isArray(one) ? one : [])));
  for (const one of here) known.add(one);
  if (here.length) {
    const made = await db.select({ original: photoFile.madeFrom }).from(photoFile).where(inArray(photoFile.hash, here));
    for (const { original } of made) if (original) known.add(original);
  }
  return photos.every((one) => known.has(one));
}
