import { and, eq, inArray, isNull } from 'drizzle-orm';
import {
  applyTone,
  boxThrough,
  emptyShare,
  type PhotoLook,
  type PhotoRecipe,
  readRecipe,
  type Sides,
} from '../../../core/photo';
import type { Executor } from '../../../db/client';
import { photoFile } from '../../../db/schema';
import { photoLook } from '../../../photos/look';
import { photoStore } from '../../../photos/store';
import { sumUpItemsOf } from './sum-up-photos';

/** Pictures looked at side by side: reading one is mostly not our own work. */
const sideBySide = 4;

/** What is found by, beside all that a picture shows. */
const lookColumns = ({ sharp, bright, middle, box }: PhotoLook) => ({ sharp, bright, middle, empty: emptyShare(box) });

/** Of one that cannot be read nothing is told, and nobody asks again. */
export const untold = { sharp: 1e9, bright: 255, middle: 255, empty: 0 };

/** The same of a picture that is made of an original: as sharp as that, as bright as it is lit, with what is left of its border. */
export function madeColumns(look: PhotoLook, from: Sides, recipe: PhotoRecipe) {
  const lit = (value: number) => {
    const pixel = new Uint8ClampedArray([value, value, value, 255]);
    applyTone(pixel, { ...recipe, warmth: 0, tint: 0 });
    return pixel[0] ?? value;
  };
  const box = boxThrough(look, from, recipe);
  return { sharp: look.sharp, bright: lit(look.bright), middle: lit(look.middle), empty: box ? emptyShare(box) : 0 };
}

/** Pictures that were made of an original before anybody looked at it. */
async function tellMade(db: Executor, original: string, look: PhotoLook): Promise<void> {
  const [from] = await db.select().from(photoFile).where(eq(photoFile.hash, original));
  const made = await db
    .select()
    .from(photoFile)
    .where(and(eq(photoFile.madeFrom, original), isNull(photoFile.sharp)));
  for (const one of made)
    if (from)
      await db
        .update(photoFile)
        .set(madeColumns(look, from, readRecipe(one.recipe)))
        .where(eq(photoFile.hash, one.hash));
}

/**
 * Looks at originals that nobody has looked at before, and keeps what they show. One that cannot be read is left as it is.
 * @returns how many were looked at
 */
export async function lookAtPhotos(db: Executor, hashes: readonly string[]): Promise<number> {
  if (hashes.length === 0) return 0;
  const open = await db
    .select({ hash: photoFile.hash })
    .from(photoFile)
    .where(and(inArray(photoFile.hash, [...new Set(hashes)]), isNull(photoFile.madeFrom), isNull(photoFile.sharp)));
  let count = 0;
  const next = open.map((one) => one.hash);
  const work = async () => {
    for (let hash = next.pop(); hash !== undefined; hash = next.pop()) {
      const look = await photoStore
        .read(hash)
        .then(photoLook)
        .catch(() => null);
      if (!look) {
        await db.update(photoFile).set(untold).where(eq(photoFile.hash, hash));
        continue;
      }
      await db
        .update(photoFile)
        .set({ look, ...lookColumns(look) })
        .where(eq(photoFile.hash, hash));
      await tellMade(db, hash, look);
      count++;
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
  await sumUpItemsOf(
    db,
    open.map((one) => one.hash),
  );
  return count;
}
