import { inArray } from 'drizzle-orm';
import type { Photo } from '../../core/item';
import type { Executor } from '../../db/client';
import { photoFile } from '../../db/schema';

/** Pictures by their hash, with their measures; unknown ones are left out. */
export async function knownPhotos(db: Executor, hashes: readonly string[]): Promise<Photo[]> {
  if (hashes.length === 0) return [];
  return db
    .select({ hash: photoFile.hash, width: photoFile.width, height: photoFile.height })
    .from(photoFile)
    .where(inArray(photoFile.hash, [...new Set(hashes)]));
}
