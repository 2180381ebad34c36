import { inArray, sql } from 'drizzle-orm';
import type { Change } from '../../../core/change';
import type { Step } from '../../../core/edit';
import type { Item, Photo } from '../../../core/item';
import { photoHashesIn } from '../../../core/photo/reference';
import { database, type Executor } from '../../../db/client';
import { itemPhoto, type ListingRow, photoFile } from '../../../db/schema';
import { clipFrame, clipMime, keepClip } from '../../../photos/clip';
import { keepRecipe } from '../../../photos/made';
import { lookAtPhotos, madeColumns, untold } from '../../records/photos/look-at-photos';
import { knowPhotos, type LoadedPhotos } from '../../records/photos/photo-knowledge';
import { printsLookedAt } from '../../records/photos/photo-prints';

const isOnPhotos = (steps: readonly Step[]): boolean =>
  steps.some((step) => step.field === 'photos' || step.field === 'clip');

/** Pictures that the steps name themselves. */
const namedIn = (steps: readonly Step[]): string[] =>
  steps.flatMap(({ do: what }) =>
    what.verb === 'photo-put'
      ? [what.photo]
      : what.verb === 'photo-replace'
        ? [what.photo, what.put]
        : what.verb === 'photo-take-out'
          ? [what.photo]
          : [],
  );

const needsLook = ({ do: { verb } }: Step) => verb === 'photo-crop' || verb === 'photo-auto';
/** Whether it covers the thing is only said where it is seen. */
const saysCovers = ({ do: { verb } }: Step) => verb === 'photo-badge';
const needsPrint = ({ do: what }: Step) =>
  (what.verb === 'photo-replace' || what.verb === 'photo-take-out') && what.alike;

type Rows = readonly Pick<ListingRow, 'overrides'>[];

/** What is known of the photos of these items, of what accounts have of their own, and of what steps name. */
export async function photosFor(
  db: Executor,
  steps: readonly Step[],
  items: readonly Item[],
  rows: Rows,
): Promise<LoadedPhotos | undefined> {
  if (!isOnPhotos(steps)) return undefined;
  const own = items.flatMap((item) => item.photos.map((photo) => photo.hash));
  return knowPhotos(db, [...own, ...rows.flatMap((row) => photoHashesIn(row.overrides.photos)), ...namedIn(steps)]);
}

/**
 * Looks at the photos of these items as far as steps need it, before the items are held.
 * @param isSeen somebody is going to look at what becomes of them
 */
export async function lookFor(steps: readonly Step[], ids: readonly number[], isSeen = false): Promise<void> {
  const photoSteps = steps.filter((step) => step.field === 'photos');
  const looks = (step: Step) => needsLook(step) || (isSeen && saysCovers(step));
  if (ids.length === 0 || !photoSteps.some((step) => looks(step) || needsPrint(step))) return;
  const db = database();
  const rows = await db
    .select({ hash: itemPhoto.hash })
    .from(itemPhoto, { forceIndex: 'photo_item' })
    .where(inArray(itemPhoto.itemId, [...ids]));
  const hashes = [...new Set([...rows.map((row) => row.hash), ...namedIn(photoSteps)])];
  if (photoSteps.some(needsPrint)) await printsLookedAt(db, hashes, async () => undefined);
  if (!photoSteps.some(looks)) return;
  const known = await knowPhotos(db, hashes);
  await lookAtPhotos(
    db,
    hashes.flatMap((hash) => known.at(hash)?.original ?? []),
  );
}

/** Keeps how the clips are made that these changes name, and that they are there. */
async function keepClips(
  db: Executor,
  changes: readonly Pick<Change, 'field' | 'to'>[],
  photos: LoadedPhotos,
): Promise<string[]> {
  const hashes = [
    ...new Set(changes.flatMap(({ field, to }) => (field === 'clip' && typeof to === 'string' ? [to] : []))),
  ];
  const plans = hashes.flatMap((hash) => {
    const plan = photos.planOf(hash);
    return plan ? [{ hash, plan }] : [];
  });
  for (const { hash, plan } of plans) await keepClip(hash, plan);
  if (plans.length)
    await db
      .insert(photoFile)
      .values(
        plans.map(({ hash }) => ({
          hash,
          mime: clipMime,
          ...clipFrame,
          bytes: 0,
          createdAt: new Date(),
          ...untold,
        })),
      )
      .onDuplicateKeyUpdate({ set: { mime: sql`values(mime)` } });
  return plans.map(({ hash }) => hash);
}

/**
 * Keeps the pictures that these changes name and that nobody has made before, in the caller's transaction: how they are
 * made, not yet themselves.
 * @returns every picture that they name, with its sides, and the hashes of those that are new
 */
export async function keepMade(
  db: Executor,
  changes: readonly Pick<Change, 'field' | 'to'>[],
  photos: LoadedPhotos | undefined,
): Promise<{ named: Photo[]; made: string[]; clips: string[] }> {
  if (!photos) return { named: [], made: [], clips: [] };
  const clips = await keepClips(db, changes, photos);
  const hashes = [...new Set(changes.flatMap(({ field, to }) => (field === 'photos' ? photoHashesIn(to) : [])))];
  const all = hashes.flatMap((hash) => photos.at(hash) ?? []);
  const fresh = all.filter((one) => photos.isNew(one.hash));
  for (const one of fresh) await keepRecipe(one.hash, one.original, one.recipe);
  if (fresh.length)
    await db
      .insert(photoFile)
      .values(
        fresh.map(({ hash, width, height, original, recipe, look, from }) => ({
          hash,
          mime: 'image/jpeg',
          width,
          height,
          bytes: 0,
          madeFrom: original,
          recipe,
          ...(look ? madeColumns(look, from, recipe) : {}),
          createdAt: new Date(),
        })),
      )
      .onDuplicateKeyUpdate({ set: { mime: sql`values(mime)` } });
  return {
    named: all.map(({ hash, width, height }) => ({ hash, width, height })),
    made: fresh.map((one) => one.hash),
    clips,
  };
}
