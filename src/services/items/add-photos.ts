import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { keepPhoto } from '../records/photos/keep-photo';

/** Adds several pictures at the end, in their order, as one change: all of them or none. */
export async function addPhotos(
  actor: Actor,
  itemId: number,
  files: { bytes: Buffer; name: string }[],
): Promise<{ photos: string[] }> {
  const stored = await Promise.all(files.map((one) => keepPhoto(one)));
  const at = new Date();
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const photos = [...item.photos.map((one) => one.hash), ...stored.map((one) => one.hash)];
          return [{ target: { item: itemId }, field: 'photos', to: photos }];
        },
        { actor, why: 'typing', at, send: 'falls', photos: stored },
      ),
    );
    return { photos: items[0]?.item.photos.map((photo) => photo.hash) ?? [] };
  });
}
