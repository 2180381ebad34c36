import { sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { photoFile } from '../../db/schema';
import { storePhoto } from '../../photos/intake';
import type { Actor } from '../access/actor';
import { positionsOf, writePositions } from './photo-positions';

/** Adds several pictures at the end, in their order, as one change: all of them or none. */
export async function addPhotos(
  actor: Actor,
  itemId: number,
  files: { bytes: Buffer; name: string }[],
): Promise<{ photos: string[] }> {
  const stored = await Promise.all(files.map(({ bytes, name }) => storePhoto(bytes, name)));
  const at = new Date();
  return transaction(async (tx) => {
    const from = await positionsOf(tx, itemId);
    if (stored.length)
      await tx
        .insert(photoFile)
        .values(stored.map((one) => ({ ...one, madeFrom: null, recipe: null, createdAt: at })))
        .onDuplicateKeyUpdate({ set: { mime: sql`values(mime)` } });
    const to = [...from, ...stored.map(({ hash }) => ({ hash, flaw: null }))];
    return writePositions(tx, actor, itemId, from, to, at);
  });
}
