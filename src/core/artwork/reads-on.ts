import type { CompiledRules } from '../rules';
import { type Rgb, readColour } from './contrast';
import { type GroundScore, readsWell } from './ground-score';

/** The attributes of an item in which artwork says whom it is for, and on which grounds it reads well. */
export const audienceAttribute = 'Audience';
export const groundsAttribute = 'Reads well on';

/** A colour on which something is printed, under the name that buyers read. */
export type Ground = { name: string; colour: Rgb };

const found = new WeakMap<CompiledRules, Ground[]>();

/** The grounds that a marketplace publishes; looked for once, however many listings ask. */
function groundsOf(compiled: CompiledRules): Ground[] {
  const known = found.get(compiled);
  if (known) return known;
  const grounds = compiled.rules.extras.flatMap(({ values }) =>
    (values ?? []).flatMap(({ label, colour }): Ground[] => {
      const read = colour === undefined ? null : readColour(colour);
      return read ? [{ name: label, colour: read }] : [];
    }),
  );
  found.set(compiled, grounds);
  return grounds;
}

/** Every ground that is offered anywhere, once each, in the order in which it is met. */
export function groundsOffered(all: readonly CompiledRules[]): Ground[] {
  const grounds = new Map<string, Ground>();
  for (const one of all.flatMap(groundsOf))
    if (!grounds.has(one.name.toLowerCase())) grounds.set(one.name.toLowerCase(), one);
  return [...grounds.values()];
}

/** Grounds as they stand in an attribute, and the way back. */
export const writeGrounds = (grounds: readonly string[]): string => grounds.join(', ');
export const readGrounds = (text: string): string[] =>
  text.split(',').flatMap((one) => (one.trim() ? [one.trim()] : []));

/** Where a picture reads well by its scores. */
export const readsOn = (scores: readonly GroundScore[]): string[] =>
  scores.filter((one) => one.score >= readsWell).map((one) => one.ground);
