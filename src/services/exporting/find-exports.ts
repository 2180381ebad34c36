import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { fileExport } from '../../db/schema';
import { exportKinds } from './other-rows';

export const exportViewSchema = z.object({
  id: z.number(),
  kind: z.enum(exportKinds),
  title: z.string(),
  columns: z.array(z.object({ id: z.string(), label: z.string(), isNumber: z.boolean().optional() })),
  rows: z.number(),
  items: z.number(),
  isDone: z.boolean(),
  byName: z.string(),
  at: z.string(),
});
export type ExportView = z.infer<typeof exportViewSchema>;

const shown = 100;

const viewOf = ({
  id,
  kind,
  title,
  columns,
  rowCount,
  itemCount,
  isDone,
  byName,
  createdAt,
}: typeof fileExport.$inferSelect): ExportView => ({
  id,
  kind,
  title,
  columns,
  rows: rowCount,
  items: itemCount,
  isDone,
  byName,
  at: createdAt.toISOString(),
});

/** What was written out lately, the newest first. */
export async function findExports(): Promise<{ exports: ExportView[] }> {
  const rows = await database().select().from(fileExport).orderBy(desc(fileExport.id)).limit(shown);
  return { exports: rows.map(viewOf) };
}

export async function findExport(id: number): Promise<ExportView> {
  const [row] = await database().select().from(fileExport).where(eq(fileExport.id, id));
  if (!row) throw new NettingError('not-found', 'This export is not kept any more');
  return viewOf(row);
}
