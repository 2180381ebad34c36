import { type PhotoReference, readPhotoReference } from '../listing/fit/photos';

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

/** A marketplace's own choice of photos after some were worked on: each keeps its place. Null where nothing of it changed. */
export function keptChoice(chosen: readonly string[], taken: ReadonlyMap<string, string>): string[] | null {
  const now = chosen.map((reference) => {
    const { hash }: PhotoReference = readPhotoReference(reference);
    return taken.get(hash) ?? reference;
  });
  return now.some((one, at) => one !== chosen[at]) ? now : null;
}
