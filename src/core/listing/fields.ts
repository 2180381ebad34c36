import { z } from 'zod';
import type { Json } from '../json';
import { jsonSchema } from '../json';

/**
 * A listing's content: field id → value, in our own units and words, as a marketplace shall hold it or does hold it.
 * Fixed fields below; a category's attributes are `attr.<id>`, a marketplace's own fields `extra.<id>`.
 */
export type Content = Record<string, Json>;

/** Where a value comes from. */
export const originSchema = z.enum(['master', 'fitted', 'override', 'template', 'account', 'rule', 'unused']);
export type Origin = z.infer<typeof originSchema>; // not used there

export const originLabels: Record<Origin, string> = {
  master: 'from the item',
  fitted: 'from the item, made to fit',
  override: 'own here',
  template: 'from a template',
  account: 'from the account',
  rule: 'by rule',
  unused: 'not used here',
};

/** What mends an issue without leaving the place, or where to go. */
export const fixSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('edit-master'),
    field: z.string(),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('edit-override'),
    field: z.string(),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('account-default'),
    field: z.string(),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('map-category'),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('map-value'),
    field: z.string(),
    source: z.string(),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('find-product'),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('edit-template'),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('variations'),
    label: z.string(),
  }),
  z.object({
    kind: z.literal('pricing'),
    label: z.string(),
  }),
]);
export type Fix = z.infer<typeof fixSchema>;

export const issueSchema = z.object({
  code: z.string(),
  field: z.string(),
  /** A plain sentence: what is wrong. */
  message: z.string(),
  /** Blocking issues keep the listing from being sent. */
  blocks: z.boolean(),
  fix: fixSchema,
});
export type Issue = z.infer<typeof issueSchema>;

export const listingValueSchema = z.object({
  field: z.string(),
  label: z.string(),
  value: jsonSchema,
  origin: originSchema,
  /** Length as the marketplace counts it, and its limit, where there is one. */
  length: z.number().optional(),
  max: z.number().optional(),
  /** How it was made, in a few words. */
  how: z.string().optional(),
  /** What was left out to make it fit. */
  lost: z.array(z.string()).optional(),
  issues: z.array(issueSchema),
});
export type ListingValue = z.infer<typeof listingValueSchema>;
