import { and, inArray, ne } from 'drizzle-orm';
import type { Photo } from '../../../core/item';
import type { Executor } from '../../../db/client';
import { photoFile } from '../../../db/schema';
import { clipMime } from '../../../photos/clip';

/** Pictures by their hash, with their measures; unknown ones, and films, are left out. */
export async function knownPhotos(db: Executor, hashes: readonly string[]): Promise<Photo[]> {
  if (hashes.length === 0) return [];
  return db
    .select({ hash: photoFile.hash, width: photoFile.width, height: photoFile.height })
    .from(photoFile)
    .where(and(inArray(photoFile.hash, [...new Set(hashes)]), ne(photoFile.mime, clipMime)));
}
