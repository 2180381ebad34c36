import type { CompiledRules } from '../rules';
import { type Rgb, readColour } from './contrast';
import { type GroundScore, readsWell } from './ground-score';

/** The attributes of an item in which artwork says whom it is for, and on which grounds it reads well. */
export const audienceAttribute = 'Audience';
export const groundsAttribute = 'Reads well on';

/** A colour on which something is printed, under the name that buyers read. */
export type Ground = { name: string; colour: Rgb };

/** Every ground that is offered anywhere, once each, in the order in which it is met. */
export function groundsOffered(all: readonly CompiledRules[]): Ground[] {
  const grounds = new Map<string, Ground>();
  for (const { rules } of all)
    for (const { values } of rules.extras)
      for (const { label, colour } of values ?? []) {
        const read = colour === undefined ? null : readColour(colour);
        if (read && !grounds.has(label.toLowerCase())) grounds.set(label.toLowerCase(), { name: label, colour: read });
      }
  return [...grounds.values()];
}

/** Grounds as they stand in an attribute, and the way back. */
export const writeGrounds = (grounds: readonly string[]): string => grounds.join(', ');
export const readGrounds = (text: string): string[] =>
  text.split(',').flatMap((one) => (one.trim() ? [one.trim()] : []));

/** Where a picture reads well by its scores. */
export const readsOn = (scores: readonly GroundScore[]): string[] =>
  scores.filter((one) => one.score >= readsWell).map((one) => one.ground);
