import { and, eq, inArray, isNull } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import { photoFile } from '../../db/schema';
import { photoLook } from '../../photos/look';
import { photoStore } from '../../photos/store';

/** Pictures looked at side by side: reading one is mostly not our own work. */
const sideBySide = 4;

/**
 * Looks at originals that nobody has looked at before, and keeps what they show. One that cannot be read is left as it is.
 * @returns how many were looked at
 */
export async function lookAtPhotos(db: Executor, hashes: readonly string[]): Promise<number> {
  if (hashes.length === 0) return 0;
  const open = await db
    .select({ hash: photoFile.hash })
    .from(photoFile)
    .where(and(inArray(photoFile.hash, [...new Set(hashes)]), isNull(photoFile.madeFrom), isNull(photoFile.look)));
  let count = 0;
  const next = open.map((one) => one.hash);
  const work = async () => {
    for (let hash = next.pop(); hash !== undefined; hash = next.pop()) {
      const look = await photoStore
        .read(hash)
        .then(photoLook)
        .catch(() => null);
      if (!look) continue;
      await db.update(photoFile).set({ look }).where(eq(photoFile.hash, hash));
      count++;
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
  return count;
}
