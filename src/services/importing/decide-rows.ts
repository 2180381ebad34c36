import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { fileImportRow } from '../../db/schema';
import { loadImport } from './load-import';

export const decideRowsSchema = z
  .object({
    lines: z.array(z.number().int().positive()).min(1).max(5_000),
    leftOut: z.boolean().optional(),
    decided: z.enum(['file', 'ours']).nullable().optional(),
  })
  .strict();

/** Leaves rows out, or says whose value holds where both sides changed it. */
export async function decideRows(id: number, { lines, ...set }: z.infer<typeof decideRowsSchema>): Promise<void> {
  const db = database();
  const { state } = await loadImport(db, id);
  if (state !== 'checked') throw new NettingError('too-late', 'This file is not waiting to be decided');
  await db
    .update(fileImportRow)
    .set(set)
    .where(and(eq(fileImportRow.importId, id), inArray(fileImportRow.line, lines)));
}
