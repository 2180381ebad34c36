import { and, asc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { database, type Tx, transaction } from '../db/client';
import { change, item, itemPhoto, photoFile } from '../db/schema';
import { storePhoto } from '../photos/intake';
import type { Actor } from './actor';
import { recordChanges } from './record-change';
import { refreshListings } from './refresh-listings';

const hash = z.string().regex(/^[0-9a-f]{64}$/);
/** The photos in their new order; leaving one out removes it, naming one twice shows it twice. */
export const orderPhotosSchema = z.object({ photos: z.array(hash).max(60) }).strict();

type Place = { hash: string; flaw: string | null };

async function placesOf(tx: Tx, itemId: number): Promise<Place[]> {
  // The item is locked first: two uploads at once must not take the same place.
  const [row] = await tx.select({ id: item.id }).from(item).where(eq(item.id, itemId)).for('update');
  if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
  return tx
    .select({ hash: itemPhoto.hash, flaw: itemPhoto.flaw })
    .from(itemPhoto)
    .where(eq(itemPhoto.itemId, itemId))
    .orderBy(asc(itemPhoto.position), asc(itemPhoto.id));
}

const hashes = (places: Place[]) => places.map((place) => place.hash);

async function writePlaces(
  tx: Tx,
  actor: Actor,
  itemId: number,
  from: Place[],
  to: Place[],
  at: Date,
): Promise<{ photos: string[] }> {
  const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId));
  const version = (row?.version ?? 0) + 1;
  await tx.delete(itemPhoto).where(eq(itemPhoto.itemId, itemId));
  if (to.length) await tx.insert(itemPhoto).values(to.map((place, position) => ({ itemId, position, ...place })));
  await tx
    .update(item)
    .set({ mainPhoto: to[0]?.hash ?? null, photoCount: to.length, version, updatedAt: at })
    .where(eq(item.id, itemId));
  await recordChanges(tx, { actor, why: 'typing', at }, [
    { itemId, itemVersion: version, field: 'photos', from: hashes(from), to: hashes(to) },
  ]);
  await refreshListings(tx, [itemId]);
  return { photos: hashes(to) };
}

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
    const from = await placesOf(tx, itemId);
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
    const { photos } = await writePlaces(tx, actor, itemId, from, to, at);
    return { hash: stored.hash, photos };
  });
}

/** Puts the photos into a new order, removes or repeats some. The originals are kept. */
export async function orderPhotos(
  actor: Actor,
  itemId: number,
  { photos }: z.infer<typeof orderPhotosSchema>,
): Promise<{ photos: string[] }> {
  return transaction(async (tx) => {
    const from = await placesOf(tx, itemId);
    const stranger = photos.find((one) => !from.some((place) => place.hash === one));
    if (stranger && !(await wasHere(tx, itemId, from, photos)))
      throw new NettingError('invalid', 'One of these photos does not belong to the item', { field: 'photos' });
    const flaws = new Map(from.map((place) => [place.hash, place.flaw]));
    const to = photos.map((one) => ({ hash: one, flaw: flaws.get(one) ?? null }));
    return writePlaces(tx, actor, itemId, from, to, new Date());
  });
}

/** Photos that were on the item once may come back, and the originals of those that are: a copied item has both unseen. */
async function wasHere(tx: Tx, itemId: number, places: Place[], photos: string[]): Promise<boolean> {
  const rows = await tx
    .select({ from: change.from, to: change.to })
    .from(change)
    .where(and(eq(change.itemId, itemId), eq(change.field, 'photos')));
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

/** What a photo of a flaw shows; without words it is a photo like others again. */
export const flawSchema = z.object({ hash, words: z.string().trim().max(200) }).strict();

export async function markFlaw(actor: Actor, itemId: number, input: z.infer<typeof flawSchema>): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const from = await placesOf(tx, itemId);
    if (!from.some((place) => place.hash === input.hash))
      throw new NettingError('not-found', 'This photo is not one of the item’s', { field: 'photos' });
    const to = from.map((place) => (place.hash === input.hash ? { ...place, flaw: input.words || null } : place));
    await writePlaces(tx, actor, itemId, from, to, at);
  });
}

/** What a picture was made from, and how: to go on from there, or back to the original. */
export const photoHashSchema = z.object({ hash }).strict();

export async function photoRecipe({
  hash: wanted,
}: z.infer<typeof photoHashSchema>): Promise<{ original: string; recipe: Record<string, unknown> | null }> {
  const [row] = await database().select().from(photoFile).where(eq(photoFile.hash, wanted));
  if (!row) throw new NettingError('not-found', 'There is no such photo');
  return { original: row.madeFrom ?? row.hash, recipe: row.recipe };
}
