import { createHash } from 'node:crypto';
import { and, eq, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import { type Tones, tonesOf, type Visible, visibleOf } from '../../core/artwork';
import { type PhotoPrint, printsApart } from '../../core/match';
import { database, type Executor } from '../../db/client';
import { artwork, item, photoFile } from '../../db/schema';
import { photoPrint } from '../../photos/print';
import { rasterOf, rasterPicture } from '../../photos/raster';
import { photoStore } from '../../photos/store';

/** Transparent parts are seen as this, so that white on nothing is told from black on nothing. */
const under = '#808080';

export type SeenArtwork = { tones: Tones; visible: Visible | null; print: PhotoPrint; pixels: string };

/** What a picture of artwork looks like: how bright, what of it is visible, and by what it is known again. */
export async function lookAtArtwork(bytes: Buffer): Promise<SeenArtwork> {
  // Read once: a picture of a hundred megapixels is not opened again for its print.
  const raster = await rasterOf(bytes);
  const print = await photoPrint(await rasterPicture(raster), under);
  const pixels = createHash('sha256').update(`${raster.width}x${raster.height}`).update(raster.pixels).digest('hex');
  return { tones: tonesOf(raster), visible: visibleOf(raster), print, pixels };
}

/** Artwork that shows the same picture in another file; the nearest. */
export async function twinOf(db: Executor, print: PhotoPrint): Promise<number | null> {
  const rows = await db
    .select({ id: artwork.itemId, print: artwork.print })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(and(isNotNull(artwork.print), ne(item.standing, sql`2`)));
  let nearest: { id: number; apart: number } | null = null;
  for (const row of rows) {
    const apart = row.print ? printsApart(row.print, print) : Number.POSITIVE_INFINITY;
    if (Number.isFinite(apart) && apart < (nearest?.apart ?? Number.POSITIVE_INFINITY)) nearest = { id: row.id, apart };
  }
  return nearest?.id ?? null;
}

/** Looks at artwork that a release before took in and did not look at so. */
export async function lookAtOlder(hashes: readonly string[]): Promise<void> {
  for (const hash of hashes) {
    const seen = await photoStore
      .read(hash)
      .then(lookAtArtwork)
      .catch(() => null);
    if (!seen) continue;
    await database()
      .update(artwork)
      .set({ tones: seen.tones, print: seen.print, pixels: seen.pixels })
      .where(and(eq(artwork.hash, hash), isNull(artwork.tones)));
    await database()
      .update(photoFile)
      .set({ visible: seen.visible })
      .where(and(eq(photoFile.hash, hash), isNull(photoFile.visible)));
  }
}
