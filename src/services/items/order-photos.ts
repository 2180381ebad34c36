import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type Tx, transaction } from '../../db/client';
import { changeRecord, photoFile } from '../../db/schema';
import type { Actor } from '../access/actor';
import { hash, hashes, type Place, positionsOf, writePositions } from './photo-positions';

/** The photos in their new order; leaving one out removes it, naming one twice shows it twice. */
export const orderPhotosSchema = z.object({ photos: z.array(hash).max(60) }).strict();

/** Puts the photos into a new order, removes or repeats some. The originals are kept. */
export async function orderPhotos(
  actor: Actor,
  itemId: number,
  { photos }: z.infer<typeof orderPhotosSchema>,
): Promise<{ photos: string[] }> {
  return transaction(async (tx) => {
    const from = await positionsOf(tx, itemId);
    const unlinkedOne = photos.find((one) => !from.some((place) => place.hash === one));
    if (unlinkedOne && !(await wasHere(tx, itemId, from, photos)))
      throw new NettingError('invalid', 'One of these photos does not belong to the item', { field: 'photos' });
    const flaws = new Map(from.map((place) => [place.hash, place.flaw]));
    const to = photos.map((one) => ({ hash: one, flaw: flaws.get(one) ?? null }));
    return writePositions(tx, actor, itemId, from, to, new Date());
  });
}

/** Photos that were on the item once may come back, and the originals of those that are: a copied item has both unseen. */
async function wasHere(tx: Tx, itemId: number, places: Place[], photos: string[]): Promise<boolean> {
  const rows = await tx
    .select({ from: changeRecord.from, to: changeRecord.to })
    .from(changeRecord)
    .where(and(eq(changeRecord.itemId, itemId), eq(changeRecord.field, 'photos')));
  const known = new Set(rows.flatMap(({ from, to }) => [from, to]).flatMap((one) => (Array.isArray(one) ? one : [])));
  for (const one of hashes(places)) known.add(one);
  if (places.length) {
    const made = await tx
      .select({ original: photoFile.madeFrom })
      .from(photoFile)
      .where(inArray(photoFile.hash, hashes(places)));
    for (const { original } of made) if (original) known.add(original);
  }
  return photos.every((one) => known.has(one));
}
