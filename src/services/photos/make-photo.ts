import { z } from 'zod';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import { fieldValue } from '../../core/field';
import type { Photo } from '../../core/item';
import { photoRecipeSchema } from '../../core/photo';
import { remadeBy } from '../../core/photo/kept-places';
import { photoHashesIn } from '../../core/photo/reference';
import { transaction } from '../../db/client';
import { makeSizes } from '../../photos/derivatives';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { keepMade } from '../changes/many/step-photos';
import { photoChanges } from '../items/photo-changes';
import { knowPhotos } from '../records/photos/photo-knowledge';

export const makePhotoSchema = z
  .object({
    hash: z.string().describe('The photo that stands there now'),
    place: z.number().int().min(0).max(59),
    recipe: photoRecipeSchema.describe('How the picture is made of its original; a plain one brings the original back'),
    twice: z.boolean().default(false).describe('Also put the untouched original behind the others'),
  })
  .strict();

const gone = () =>
  new NettingError('conflict', 'This photo is not at its place any more', {
    field: 'photos',
    fix: 'Look at the photos as they are now',
  });

/** Makes a photo anew of its original, in its place; the original is always kept. */
export async function makePhoto(
  actor: Actor,
  itemId: number,
  { hash, place, recipe, twice }: z.infer<typeof makePhotoSchema>,
): Promise<{ hash: string; photos: string[] }> {
  const named: Photo[] = [];
  const fresh: string[] = [];
  const made = await transaction(async (tx) => {
    let now = '';
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        async ({ items: [item], listings }): Promise<Change[]> => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const replaced = item.photos[place];
          if (replaced?.hash !== hash) throw gone();
          const own = listings.flatMap(({ overrides }) => photoHashesIn(overrides.photos));
          const known = await knowPhotos(tx, [...item.photos.map((one) => one.hash), ...own]);
          const photo = known.at(hash);
          if (!photo) throw gone();
          const next = known.made(photo, recipe);
          now = next.hash;
          const before = item.photos.map((one) => one.hash);
          const after = before.map((one, at) => (at === place ? next.hash : one));
          if (twice && after.at(-1) !== photo.original) after.push(photo.original);
          const changes = photoChanges(item, listings, after, {
            taken: new Map([[hash, next.hash]]),
            remade: remadeBy(known),
          });
          const kept = await keepMade(tx, changes, known);
          named.push(...kept.named);
          fresh.push(...kept.made);
          // The flaw that it showed is still what it shows.
          if (!replaced.flaw || next.hash === hash) return changes;
          const flaws = { ...(fieldValue(item, 'flaws') as Record<string, string>), [next.hash]: replaced.flaw }; // hash → words
          return [...changes, { target: { item: itemId }, field: 'flaws', to: flaws }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls', photos: named },
      ),
    );
    return { hash: now, photos: items[0]?.item.photos.map((photo) => photo.hash) ?? [] };
  });
  await makeSizes(fresh);
  return made;
}
