import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { keepPhoto } from '../records/photos/keep-photo';

/** Adds an uploaded picture at the end. */
export async function addPhoto(
  actor: Actor,
  itemId: number,
  file: { bytes: Buffer; name: string },
): Promise<{ hash: string; photos: string[] }> {
  const stored = await keepPhoto(file);
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const photos = [...item.photos.map((photo) => photo.hash), stored.hash];
          return [{ target: { item: itemId }, field: 'photos', to: photos }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls', photos: [stored] },
      ),
    );
    return { hash: stored.hash, photos: items[0]?.item.photos.map((photo) => photo.hash) ?? [] };
  });
}
