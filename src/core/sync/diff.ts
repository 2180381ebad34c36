import { z } from 'zod';
import { jsonSchema, sameJson } from '../json';
import type { Content } from '../listing/fields';
import { carrierField } from '../rules/carrier';

export const fieldDiffSchema = z.object({
  field: z.string(),
  from: jsonSchema,
  to: jsonSchema,
});
export type FieldDiff = z.infer<typeof fieldDiffSchema>;

/**
 * What has to change to get from one content to another, field by field, in a stable order. What is ours alone is no
 * change: a marketplace is not told.
 */
export function diff(from: Content, to: Content): FieldDiff[] {
  const fields = [...new Set([...Object.keys(from), ...Object.keys(to)])].sort();
  return fields
    .filter((field) => field !== carrierField && !sameJson(from[field], to[field]))
    .map((field) => ({ field, from: from[field] ?? null, to: to[field] ?? null }));
}
