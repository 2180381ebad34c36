import { z } from 'zod';
import type { Json } from '../json';

export const ownFieldTypes = ['text', 'long', 'number', 'choice', 'date', 'tags'] as const;

/** A field that the sellers add for themselves; its values stand in the item under `key`. */
export const customFieldSchema = z
  .object({
    key: z.string().regex(/^[a-z][a-z0-9_]{0,29}$/, 'Small letters, digits and _, beginning with a letter, 30 at most'),
    label: z.string().trim().min(1, 'A name is needed').max(40),
    type: z.enum(ownFieldTypes),
    /** For choices: what can be chosen. */
    choices: z.array(z.string().trim().min(1).max(60)).max(60),
    /** Text: most characters. Tags: how many. */
    most: z.number().int().min(1).max(10_000).nullable(),
    /** Numbers: from and to. */
    from: z.number().nullable(),
    to: z.number().nullable(),
    /** Own category (and what is below it) where it is shown; empty for everywhere. */
    category: z.string().max(120),
    /** Whether a copy of an item takes it along. */
    copied: z.boolean(),
  })
  .strict();
export type CustomField = z.infer<typeof customFieldSchema>;

export type CustomValues = Record<string, Json>;

/** Whether a field belongs on the sheet of an item of this category. */
export const isShownFor = (field: Pick<CustomField, 'category'>, category: string): boolean =>
  field.category === '' || category === field.category || category.startsWith(`${field.category}/`);

/** What is wrong with a value of a field, in a plain sentence; null when it may stand. Null and '' are always fine. */
export function customFieldFault(field: CustomField, value: Json): string | null {
  if (value === null || value === '') return null;
  switch (field.type) {
    case 'text':
    case 'long': {
      const most = field.most ?? (field.type === 'text' ? 300 : 10_000);
      if (typeof value !== 'string') return `${field.label} is a text`;
      return [...value].length > most ? `${field.label} has at most ${most} characters` : null;
    }
    case 'number':
      if (typeof value !== 'number' || !Number.isFinite(value)) return `${field.label} is a number`;
      if (field.from !== null && value < field.from) return `${field.label} is at least ${field.from}`;
      return field.to !== null && value > field.to ? `${field.label} is at most ${field.to}` : null;
    case 'choice':
      return typeof value === 'string' && field.choices.includes(value) ? null : `${field.label} is one of its list`;
    case 'date':
      return typeof value === 'string' && z.iso.date().safeParse(value).success ? null : `${field.label} is a date`;
    case 'tags':
      if (!Array.isArray(value) || value.some((one) => typeof one !== 'string'))
        return `${field.label} is a list of words`;
      return value.length > (field.most ?? 60) ? `${field.label} has at most ${field.most ?? 60} words` : null;
  }
}

/** A value as text, for a cell, a filter or a file. */
export const ownText = (value: Json | undefined): string =>
  value === null || value === undefined ? '' : Array.isArray(value) ? value.map(String).join(', ') : String(value);
