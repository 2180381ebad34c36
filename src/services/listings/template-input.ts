import { desc } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type Template, templateConditionSchema, templateFault, templateFieldsSchema } from '../../core/listing';
import { database } from '../../db/client';
import { item } from '../../db/schema';
import { cleanRichText } from '../records/clean-rich-text';

export const templateInputSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    /** No accounts: for all of them. */
    accounts: z.array(z.number().int().positive()).max(50).default([]),
    conditions: z.array(templateConditionSchema).max(12).default([]),
    fields: templateFieldsSchema,
    /** A change meant for new items only leaves those that exist as they are. */
    for: z.enum(['all', 'new']).default('all'),
  })
  .strict();

export type TemplateInput = z.infer<typeof templateInputSchema>;

export function checkFields(fields: Record<string, string>): void {
  for (const [field, text] of Object.entries(fields)) {
    const fault = templateFault(text);
    if (fault) throw new NettingError('invalid', `This cannot be read: ${fault}`, { field: `fields.${field}` });
  }
}

/** The description is rich text like any other: cleaned before it is kept. */
export const cleaned = (fields: Record<string, string>): Record<string, string> =>
  fields.description ? { ...fields, description: cleanRichText(fields.description) } : fields;

export async function previousOf(
  old: { fields: Record<string, string> } | null,
  input: TemplateInput,
): Promise<Template['previous']> {
  if (input.for === 'all') return null;
  const [last] = await database().select({ id: item.id }).from(item).orderBy(desc(item.id)).limit(1);
  return { untilItem: last?.id ?? 0, fields: old?.fields ?? {} };
}
