import type { Photo } from '../item';
import { type KnownPhoto, madeSize, type PhotoKnowledge, type PhotoLook, plainRecipe, recipeWords } from '.';

/** A hash that is easily told from others. */
export const hashOf = (name: string): string =>
  [...name]
    .map((sign) => sign.charCodeAt(0).toString(16))
    .join('')
    .padEnd(64, '0')
    .slice(0, 64);

/** Something in the middle of a wide picture. */
export const middleLook: PhotoLook = {
  front: Array.from({ length: 32 }, (_, row) => (row >= 8 && row < 24 ? '00ffff00' : '00000000')).join(''),
  box: { x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
  sharp: 200,
  dark: 20,
  middle: 100,
  bright: 150,
  warmth: 5,
  tint: -3,
};

export const photoNamed = (name: string): Photo => ({ hash: hashOf(name), width: 1_600, height: 1_200 });

/** Knowledge of originals of these names; what is made of them has a hash that follows from the two. */
export function knowledgeOf(names: readonly string[], look: PhotoLook | null = middleLook): PhotoKnowledge {
  const all = new Map<string, KnownPhoto>(
    names.map((name) => {
      const photo = photoNamed(name);
      const { hash, width, height } = photo;
      return [hash, { ...photo, original: hash, recipe: plainRecipe, from: { width, height }, look }];
    }),
  );
  const words = new Map<string, string>();
  return {
    at: (hash) => all.get(hash),
    clip: ({ photos, seconds }) => `cc${photos.length}${seconds}`.padEnd(64, '0'),
    alike: (a, b) => a.slice(0, 2) === b.slice(0, 2),
    made(of, recipe) {
      if (recipeWords(recipe) === recipeWords(of.recipe)) return of;
      if (recipeWords(recipe) === recipeWords(plainRecipe)) return all.get(of.original) ?? of;
      const key = `${of.original} ${recipeWords(recipe)}`;
      const hash = words.get(key) ?? `ee${String(words.size).padStart(62, '0')}`;
      words.set(key, hash);
      const made = { ...of, ...madeSize(of.from.width, of.from.height, recipe), hash, recipe };
      all.set(hash, made);
      return made;
    },
  };
}
