import { createHash } from 'node:crypto';
import { isPlain, type PhotoRecipe, readRecipe, recipeWords } from '../core/photo/recipe';
import { photoStore } from './store';

/** The hash of the picture that a recipe makes of an original: it follows from the two, before the picture is there. */
export const madeHash = (original: string, recipe: PhotoRecipe): string =>
  isPlain(recipe)
    ? original
    : createHash('sha256')
        .update(`made of ${original}\n${recipeWords(recipe)}`)
        .digest('hex');

const keyOf = (hash: string) => `${hash}.recipe`;

/** Keeps how a picture is made; the picture itself is made where it is wanted, in the size that is wanted. */
export async function keepRecipe(hash: string, original: string, recipe: PhotoRecipe): Promise<void> {
  const key = keyOf(hash);
  if (!(await photoStore.has(key))) await photoStore.write(key, Buffer.from(JSON.stringify({ original, recipe })));
}

/** What a picture is made of, and how; null for one that is kept as it came. */
export async function keptRecipe(hash: string): Promise<{ original: string; recipe: PhotoRecipe } | null> {
  const key = keyOf(hash);
  if (!(await photoStore.has(key))) return null;
  const { original, recipe } = JSON.parse((await photoStore.read(key)).toString()) as {
    original: string;
    recipe: unknown;
  }; // written above
  return { original, recipe: readRecipe(recipe) };
}
