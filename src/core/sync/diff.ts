import { type Json, sameJson } from '../json';
import type { Content } from '../listing/fields';

export type FieldDiff = { field: string; from: Json; to: Json };

/** What has to change to get from one content to another, field by field, in a stable order. */
export function diff(from: Content, to: Content): FieldDiff[] {
  const fields = [...new Set([...Object.keys(from), ...Object.keys(to)])].sort();
  return fields
    .filter((field) => !sameJson(from[field], to[field]))
    .map((field) => ({ field, from: from[field] ?? null, to: to[field] ?? null }));
}

/** A content after differences: the inverse of `difference`. */
export function applyDiff(content: Content, changes: FieldDiff[]): Content {
  const result = { ...content };
  for (const { field, to } of changes) {
    if (to === null) delete result[field];
    else result[field] = to;
  }
  return result;
}
