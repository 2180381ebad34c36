import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { photoFile } from '../../db/schema';
import { storePhoto } from '../../photos/intake';
import type { Actor } from '../access/actor';
import { type Place, positionsOf, writePositions } from './photo-positions';

/** A picture made from another one of the item: where it goes, and how it was made. */
export type MadeFrom = { original: string; place: number | null; recipe: Record<string, unknown> };

/**
 * Adds an uploaded picture at the end, or puts a picture that was made from another into that one's place. Originals
 * are always kept.
 */
export async function addPhoto(
  actor: Actor,
  itemId: number,
  file: { bytes: Buffer; name: string; made?: MadeFrom },
): Promise<{ hash: string; photos: string[] }> {
  const stored = await storePhoto(file.bytes, file.name);
  const at = new Date();
  const { made } = file;
  return transaction(async (tx) => {
    const from = await positionsOf(tx, itemId);
    if (made) {
      const [original] = await tx
        .select({ hash: photoFile.hash })
        .from(photoFile)
        .where(eq(photoFile.hash, made.original));
      if (!original || (made.place !== null && !from[made.place]))
        throw new NettingError('invalid', 'The photo that this one was made from is not here any more', {
          field: 'photos',
        });
    }
    await tx
      .insert(photoFile)
      .values({ ...stored, madeFrom: made?.original ?? null, recipe: made?.recipe ?? null, createdAt: at })
      .onDuplicateKeyUpdate({ set: { mime: stored.mime } });
    const place = made?.place ?? null;
    const to: Place[] =
      place === null
        ? [...from, { hash: stored.hash, flaw: null }]
        : from.map((one, index) => (index === place ? { ...one, hash: stored.hash } : one));
    const { photos } = await writePositions(tx, actor, itemId, from, to, at);
    return { hash: stored.hash, photos };
  });
}
