import { type Json, sameJson } from '../json';
import type { Content } from '../listing/fields';
import { carrierField } from '../rules/carrier';
import { compared } from './compared';

const isSame = (field: string, a: Json | undefined, b: Json | undefined): boolean =>
  sameJson(compared(field, a ?? null), compared(field, b ?? null));

/**
 * Fields in which what they show differs from what we last sent. Only fields that both sides know are compared:
 * a marketplace that does not show a field back has not changed it.
 */
export function driftedFields(sent: Content, seen: Content): string[] {
  return Object.keys(seen)
    .filter((field) => field in sent && !isSame(field, sent[field], seen[field]))
    .sort();
}

export type MergedField = {
  field: string;
  sent: Json;
  wanted: Json;
  seen: Json;
  verdict: 'ours' | 'theirs' | 'same' | 'conflict';
};

/**
 * Three-way comparison of one listing: what we last sent is the common ancestor. Equal on both sides is no conflict,
 * also when both changed.
 */
export function mergeFields(sent: Content, wanted: Content, seen: Content): MergedField[] {
  const fields = [...new Set([...Object.keys(sent), ...Object.keys(wanted), ...Object.keys(seen)])].sort();
  return fields.flatMap((field): MergedField[] => {
    if (field === carrierField) return [];
    const base = sent[field] ?? null;
    const ours = wanted[field] ?? null;
    const theirs = field in seen ? (seen[field] ?? null) : base;
    const weChanged = !isSame(field, base, ours);
    const theyChanged = !isSame(field, base, theirs);
    if (!weChanged && !theyChanged) return [];
    const verdict = isSame(field, ours, theirs)
      ? 'same'
      : weChanged && theyChanged
        ? 'conflict'
        : weChanged
          ? 'ours'
          : 'theirs';
    return [{ field, sent: base, wanted: ours, seen: theirs, verdict }];
  });
}
