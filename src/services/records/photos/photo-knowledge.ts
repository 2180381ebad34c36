import { and, inArray, ne } from 'drizzle-orm';
import { type PhotoPrint, printsApart } from '../../../core/match';
import {
  type ClipPlan,
  type KnownPhoto,
  madeSize,
  type PhotoKnowledge,
  plainRecipe,
  readRecipe,
  recipeWords,
} from '../../../core/photo';
import type { Executor } from '../../../db/client';
import { photoFile } from '../../../db/schema';
import { clipHash, clipMime } from '../../../photos/clip';
import { madeHash } from '../../../photos/made';

type Row = Pick<typeof photoFile.$inferSelect, 'hash' | 'width' | 'height' | 'madeFrom' | 'recipe' | 'look' | 'print'>;

const readRows = (db: Executor, hashes: readonly string[]): Promise<Row[]> =>
  hashes.length === 0
    ? Promise.resolve([])
    : db
        .select({
          hash: photoFile.hash,
          width: photoFile.width,
          height: photoFile.height,
          madeFrom: photoFile.madeFrom,
          recipe: photoFile.recipe,
          look: photoFile.look,
          print: photoFile.print,
        })
        .from(photoFile)
        .where(and(inArray(photoFile.hash, [...hashes]), ne(photoFile.mime, clipMime)));

/** What is known of pictures, and what was made of them in thought, which nobody has kept yet. */
export type LoadedPhotos = PhotoKnowledge & {
  isNew(hash: string): boolean;
  /** The plan of a clip that was made in thought. */
  planOf(hash: string): ClipPlan | undefined;
};

/** What is known of these pictures and the originals that they are made of. */
export async function knowPhotos(db: Executor, hashes: readonly string[]): Promise<LoadedPhotos> {
  const rows = new Map((await readRows(db, [...new Set(hashes)])).map((row) => [row.hash, row]));
  const originals = new Set(
    [...rows.values()].flatMap(({ madeFrom }) => (madeFrom && !rows.has(madeFrom) ? [madeFrom] : [])),
  );
  for (const row of await readRows(db, [...originals])) rows.set(row.hash, row);
  const clips = new Map<string, ClipPlan>();
  const made = new Map<string, KnownPhoto>();
  const known = new Map<string, KnownPhoto>();
  const prints = new Map<string, PhotoPrint>([...rows].flatMap(([hash, { print }]) => (print ? [[hash, print]] : [])));
  for (const { hash, width, height, madeFrom, recipe, look } of rows.values()) {
    const from = madeFrom === null ? undefined : rows.get(madeFrom);
    const sides = from ?? { width, height };
    known.set(hash, {
      hash,
      width,
      height,
      original: from?.hash ?? hash,
      recipe: from ? readRecipe(recipe) : plainRecipe,
      from: { width: sides.width, height: sides.height },
      look: (from ?? { look }).look,
    });
  }
  return {
    at: (hash) => known.get(hash) ?? made.get(hash),
    clip(plan) {
      const hash = clipHash(plan);
      clips.set(hash, plan);
      return hash;
    },
    planOf: (hash) => clips.get(hash),
    isNew: (hash) => made.has(hash) && !known.has(hash),
    made(of, recipe) {
      // Nothing was changed: it is the same picture, also one that was made in another way.
      if (recipeWords(recipe) === recipeWords(of.recipe)) return of;
      const hash = madeHash(of.original, recipe);
      const here = known.get(hash) ?? made.get(hash);
      if (here) return here;
      const { original, from, look } = of;
      const next: KnownPhoto = { hash, ...madeSize(from.width, from.height, recipe), original, recipe, from, look };
      made.set(hash, next);
      return next;
    },
    alike(a, b) {
      const [one, other] = [prints.get(a), prints.get(b)];
      return one !== undefined && other !== undefined && Number.isFinite(printsApart(one, other));
    },
  };
}
