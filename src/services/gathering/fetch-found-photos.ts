import { eq, inArray, sql } from 'drizzle-orm';
import { isTransient, NettingError } from '../../core/errors';
import type { PhotoPrint } from '../../core/match';
import { database, transaction } from '../../db/client';
import { type FoundRow, foundListing, photoFile, remotePhoto } from '../../db/schema';
import { type StoredPhoto, storePhoto } from '../../photos/intake';
import { photoPrint } from '../../photos/print';
import { theirPicture } from './their-picture';

const sideBySide = 8;

type Kept = StoredPhoto & { print: PhotoPrint };
type Fetched = { hash: string; kept?: Kept } | { why: string };

/** One picture, looked at and kept; its other sizes are made when somebody first looks at it. */
async function fetchOne(url: string): Promise<Fetched> {
  try {
    const bytes = await theirPicture(url);
    const print = await photoPrint(bytes).catch(() => {
      throw new NettingError('photo-unreadable', 'A photo there cannot be read', { field: 'photos' });
    });
    const stored = await storePhoto(bytes, 'A photo there', 'later');
    return { hash: stored.hash, kept: { ...stored, print } };
  } catch (error) {
    if (error instanceof NettingError && !isTransient(error.code)) return { why: error.message };
    throw error;
  }
}

/** Pictures that a marketplace was known to have: they are not asked for again. */
async function knownThere(accountId: number, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await database()
    .select({ hash: remotePhoto.hash, remoteId: remotePhoto.remoteId })
    .from(remotePhoto)
    .where(sql`${remotePhoto.accountId} = ${accountId} and ${inArray(remotePhoto.remoteId, [...ids])}`);
  // One that was brought into a shape is not the original.
  return new Map(rows.filter((row) => !row.hash.includes('~')).map((row) => [row.remoteId, row.hash]));
}

/**
 * Fetches the photos of listings that were found, several side by side, and keeps for each which of our pictures they are.
 * One that is not there, or is none, is left out and said.
 */
export async function fetchFoundPhotos(rows: readonly FoundRow[]): Promise<void> {
  const due = rows.flatMap((row) => row.photos.map((photo, at) => ({ row, photo, at })));
  const known = new Map<number, Map<string, string>>();
  for (const accountId of new Set(rows.map((row) => row.accountId))) {
    const ids = due.filter((one) => one.row.accountId === accountId).map((one) => one.photo.id);
    known.set(accountId, await knownThere(accountId, ids));
  }
  const fetched = new Map<FoundRow, Fetched[]>(rows.map((row) => [row, []]));
  const open = [...due];
  const work = async () => {
    for (let one = open.shift(); one; one = open.shift()) {
      const hash = known.get(one.row.accountId)?.get(one.photo.id);
      const got = hash ? { hash } : await fetchOne(one.photo.url);
      const there = fetched.get(one.row);
      if (there) there[one.at] = got;
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
  const kept = new Map(
    [...fetched.values()].flat().flatMap((one) => ('kept' in one && one.kept ? [[one.hash, one.kept]] : [])),
  );
  await transaction(async (tx) => {
    if (kept.size)
      await tx
        .insert(photoFile)
        .values(
          [...kept.values()].map(({ print, ...one }) => ({
            ...one,
            print: [...print] as [string, string, string, string], // of the same length
            madeFrom: null,
            recipe: null,
            createdAt: new Date(),
          })),
        )
        .onDuplicateKeyUpdate({ set: { print: sql`values(\`print\`)` } });
    for (const [row, photos] of fetched) {
      const missing = photos.find((one): one is { why: string } => 'why' in one);
      await tx
        .update(foundListing)
        .set({
          hashes: photos.map((one) => ('hash' in one ? one.hash : null)),
          said: missing ? `A photo could not be taken along: ${missing.why}`.slice(0, 300) : null,
        })
        .where(eq(foundListing.id, row.id));
    }
  });
}
