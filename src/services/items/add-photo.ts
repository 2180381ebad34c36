import { eq } from 'drizzle-orm';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import { fieldValue } from '../../core/field';
import { transaction } from '../../db/client';
import { photoFile } from '../../db/schema';
import { storePhoto } from '../../photos/intake';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit-items';
import { allCommitted } from '../changes/refusal-error';
import { knownPhotos } from '../records/known-photos';
import { photoChanges } from './photo-changes';

/** A picture made from another one of the item: where it goes, and how it was made. */
export type MadeFrom = { original: string; place: number | null; recipe: Record<string, unknown> };

const gone = () =>
  new NettingError('invalid', 'The photo that this one was made from is not here any more', { field: 'photos' });

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
  const { hash } = stored;
  return transaction(async (tx) => {
    if (made) {
      const [original] = await tx
        .select({ hash: photoFile.hash })
        .from(photoFile)
        .where(eq(photoFile.hash, made.original));
      if (!original) throw gone();
    }
    await tx
      .insert(photoFile)
      .values({ ...stored, madeFrom: made?.original ?? null, recipe: made?.recipe ?? null, createdAt: at })
      .onDuplicateKeyUpdate({ set: { mime: stored.mime } });
    const place = made?.place ?? null;
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item], listings }): Change[] => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const target = { item: itemId };
          const before = item.photos.map((photo) => photo.hash);
          if (place === null) return [{ target, field: 'photos', to: [...before, hash] }];
          const replaced = item.photos[place];
          if (!replaced) throw gone();
          const after = before.map((one, index) => (index === place ? hash : one));
          const photos = photoChanges(item, listings, after);
          // The flaw that it showed is still what it shows.
          if (!replaced.flaw) return photos;
          const flaws = { ...(fieldValue(item, 'flaws') as Record<string, string>), [hash]: replaced.flaw }; // hash → words
          return [...photos, { target, field: 'flaws', to: flaws }];
        },
        { actor, why: 'typing', at, send: 'falls', photos: await knownPhotos(tx, [hash]) },
      ),
    );
    return { hash, photos: items[0]?.item.photos.map((photo) => photo.hash) ?? [] };
  });
}
