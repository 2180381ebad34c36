import { z } from 'zod';
import type { Json } from '../../../json';
import { isPlain, type KnownPhoto, type PhotoRecipe } from '../../../photo';
import { madeReference, type PhotoReference, readPhotoReference } from '../../../photo/reference';
import type { VerbContext, VerbOutcome } from '../verb';

export const photoHash = z.string().regex(/^[0-9a-f]{64}$/, 'Choose a picture');

export const whichLabels = { first: 'Main photo', others: 'All but main', all: 'All photos' } as const;
export type Which = keyof typeof whichLabels;
export const which = z.enum(['first', 'others', 'all']).default('first');

export const sayWhich = (one: Which): string =>
  one === 'first' ? 'the main one' : one === 'others' ? 'all but the main one' : 'all of them';

/** A photo at its place: of an item, or as it is chosen for an account. */
export type Entry = Pick<PhotoReference, 'hash' | 'made'>;

export const entriesOf = (value: Json): Entry[] =>
  Array.isArray(value) ? value.map((one) => readPhotoReference(String(one))) : [];

const written = ({ hash, made }: Entry): string => (made ? madeReference({ hash, ...made }, made.of) : hash);

/** The photos in another order, or others, with which took whose place. */
export function outcome(after: readonly Entry[], became: readonly [string, string][] = []): VerbOutcome {
  const left = new Set(after.map((one) => one.hash));
  const gone = became.filter(([old, now]) => old !== now && !left.has(old));
  return { to: after.map(written), ...(gone.length ? { became: gone } : {}) };
}

/** A picture that stands there for itself: an item's photo, or one that only this account gets. */
export function standing(photo: KnownPhoto, { field }: Pick<VerbContext, 'field'>): Entry {
  const { hash, width, height } = photo;
  return { hash, made: field.on === 'listing' ? { width, height, of: hash } : null };
}

const isMeant = (one: Which, at: number) => one === 'all' || (at === 0) === (one === 'first');

/** How one photo is made anew of its original; a sentence where it cannot be. */
export type Anew = (photo: KnownPhoto) => PhotoRecipe | string;

/** Makes the photos that are meant anew, each of its original; what took whose place is said with it. */
export function madeAnew(value: Json, context: VerbContext, meant: Which, anew: Anew): VerbOutcome {
  const { photos: known, field } = context;
  const before = entriesOf(value);
  if (!known) return { refused: 'Nothing is known of its photos' };
  if (before.length === 0) return { refused: 'It has no photo' };
  const became: [string, string][] = [];
  const after: Entry[] = [];
  for (const [at, entry] of before.entries()) {
    if (!isMeant(meant, at)) {
      after.push(entry);
      continue;
    }
    const photo = known.at(entry.hash);
    if (!photo) return { refused: `Nothing is known of its photo ${at + 1}` };
    const recipe = anew(photo);
    if (typeof recipe === 'string') return { refused: recipe };
    const made = known.made(photo, recipe);
    const of = entry.made?.of ?? entry.hash;
    const { hash, width, height } = made;
    became.push([entry.hash, hash]);
    after.push({ hash, made: field.on === 'listing' && hash !== of ? { width, height, of } : null });
  }
  return outcome(after, field.on === 'listing' ? [] : became);
}

/** Whether a picture was made of another one. */
export const isMade = ({ recipe }: KnownPhoto): boolean => !isPlain(recipe);
