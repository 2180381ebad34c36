import { type Json, sameJson } from '../json';
import type { PhotoKnowledge } from './known';
import type { Layer } from './layer';
import { madeReference, readPhotoReference } from './reference';

/** Which photo took whose place: two orders of the same length, in which a photo that is gone has another where it stood. */
export function takenPlaces(before: readonly string[], after: readonly string[]): Map<string, string> {
  const taken = new Map<string, string>();
  if (before.length !== after.length) return taken;
  before.forEach((old, at) => {
    const now = after[at];
    if (now !== undefined && now !== old && !after.includes(old) && !before.includes(now)) taken.set(old, now);
  });
  return taken;
}

/** A picture made for one account as it is made of the photo that took the place of the one it was made of. */
export type Remade = (made: string, now: string) => { hash: string; width: number; height: number } | null;

/**
 * An account's own choice of photos after some were worked on: each keeps its place, and what was made of one for this
 * account is made of what took its place. Null where nothing of it changed.
 * @param remade left out, such a picture stays as it was made
 */
export function keptChoice(
  chosen: readonly Json[],
  taken: ReadonlyMap<string, string>,
  remade?: Remade,
): string[] | null {
  const now = chosen.map((one) => {
    const reference = String(one);
    const { hash, made } = readPhotoReference(reference);
    const next = taken.get(made?.of ?? hash);
    if (next === undefined) return reference;
    return made ? madeReference(remade?.(hash, next) ?? { hash, ...made }, next) : next;
  });
  return now.some((one, at) => one !== chosen[at]) ? now : null;
}

/** What was added for the account alone stays, on what took the place of the photo. */
export const remadeBy =
  (known: PhotoKnowledge): Remade =>
  (made, now) => {
    const [was, next] = [known.at(made), known.at(now)];
    if (!was || !next) return null;
    const has = (layer: Layer) => next.recipe.layers.some((one) => sameJson(one, layer));
    const layers = [...next.recipe.layers, ...was.recipe.layers.filter((one) => !has(one))].slice(0, 6);
    return known.made(next, { ...next.recipe, layers });
  };
