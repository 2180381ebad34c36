import type { Template } from '../../core/listing';
import { database } from '../../db/client';
import { template } from '../../db/schema';

export type TemplateView = Template & { accounts: number[]; version: number; byName: string; updatedAt: string };

export async function findTemplates(): Promise<{ templates: TemplateView[] }> {
  const rows = await database().select().from(template).orderBy(template.id);
  return { templates: rows.map(({ updatedAt, ...row }) => ({ ...row, updatedAt: updatedAt.toISOString() })) };
}
