import { z } from 'zod';
import { readConditions, templateSchema } from '../../../core/listing';
import { database } from '../../../db/client';
import { template } from '../../../db/schema';

export const templateViewSchema = templateSchema.extend({
  accounts: z.array(z.number()),
  version: z.number(),
  byName: z.string(),
  updatedAt: z.string(),
});
export type TemplateView = z.infer<typeof templateViewSchema>;

/** The templates, in the order in which they were made. */
export async function findTemplates(): Promise<{ templates: TemplateView[] }> {
  const rows = await database().select().from(template).orderBy(template.id);
  return {
    templates: rows.map(({ updatedAt, conditions, ...row }) => ({
      ...row,
      conditions: readConditions(conditions),
      updatedAt: updatedAt.toISOString(),
    })),
  };
}
