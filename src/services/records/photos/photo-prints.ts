import { and, eq, inArray, isNotNull } from 'drizzle-orm';
import type { PhotoPrint } from '../../../core/match';
import type { Executor } from '../../../db/client';
import { photoFile } from '../../../db/schema';
import { readDerivative } from '../../../photos/derivatives';
import { photoPrint } from '../../../photos/print';
import { photoStore } from '../../../photos/store';

const atOnce = 500;
/** So many pictures of ours that nobody has looked at are looked at in one go; the others say nothing then. */
const mostLooks = 2_000;

/** A picture as it came; of one that is made as it is needed, large enough to be looked at. */
const pictureOf = async (hash: string): Promise<Buffer> =>
  (await photoStore.has(hash)) ? photoStore.read(hash) : readDerivative(hash, 'market');

/** What pictures look like, of those of which it is known. */
export async function printsOf(db: Executor, hashes: readonly string[]): Promise<Map<string, PhotoPrint>> {
  const known = new Map<string, PhotoPrint>();
  const wanted = [...new Set(hashes)];
  for (let at = 0; at < wanted.length; at += atOnce) {
    const rows = await db
      .select({ hash: photoFile.hash, print: photoFile.print })
      .from(photoFile)
      .where(and(inArray(photoFile.hash, wanted.slice(at, at + atOnce)), isNotNull(photoFile.print)));
    for (const { hash, print } of rows) if (print) known.set(hash, print);
  }
  return known;
}

/** The same, with those looked at now that nobody has looked at before. One that cannot be read is left out. */
export async function printsLookedAt(
  db: Executor,
  hashes: readonly string[],
  alive: () => Promise<void>,
): Promise<Map<string, PhotoPrint>> {
  const known = await printsOf(db, hashes);
  const open = [...new Set(hashes)].filter((hash) => !known.has(hash));
  for (const [at, hash] of open.slice(0, mostLooks).entries()) {
    if (at % 20 === 19) await alive();
    const print = await pictureOf(hash)
      .then(photoPrint)
      .catch(() => null);
    if (!print) continue;
    known.set(hash, print);
    await db
      .update(photoFile)
      .set({ print: [...print] })
      .where(eq(photoFile.hash, hash));
  }
  return known;
}
