import { and, asc, eq, gt, type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { CellPlan } from '../../core/table';
import { database } from '../../db/client';
import { likeText } from '../../db/like';
import { fileImportRow, importRowKinds } from '../../db/schema';
import { fileColumns } from '../records/items/file-columns';

export const findImportRowsSchema = z.object({
  kind: z.enum(importRowKinds).optional(),
  q: z.string().trim().max(80).optional().describe('Words that the row holds'),
  after: z.coerce.number().int().min(0).default(0).describe('The line after which the page begins'),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});

export const importRowsSchema = z.object({
  rows: z.array(
    z.object({
      line: z.number(),
      kind: z.enum(importRowKinds),
      itemId: z.number().nullable(),
      label: z.string(),
      cells: z.array(
        z.object({
          column: z.string(),
          label: z.string(),
          exported: z.string().optional(),
          now: z.string(),
          file: z.string(),
          /** What the field becomes. */
          becomes: z.string(),
          isConflict: z.boolean(),
          said: z.string().optional(),
        }),
      ),
      why: z.string().nullable(),
      column: z.string().nullable(),
      leftOut: z.boolean(),
      decided: z.enum(['file', 'ours']).nullable(),
      isDone: z.boolean(),
    }),
  ),
  next: z.number().nullable(),
});

/** Every word stands somewhere in the row as it is in the file, or in what the row is called. */
const wordsIn = (q: string): SQL[] =>
  q
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => {
      const like = `%${likeText(word)}%`;
      return sql`(lower(${fileImportRow.label}) like ${like} or lower(convert(${fileImportRow.raw} using utf8mb4)) like ${like})`;
    });

/** Rows of a file that say something else than the record, as they stand in it. */
export async function findImportRows(
  id: number,
  { kind, q, after, limit }: z.infer<typeof findImportRowsSchema>,
): Promise<z.infer<typeof importRowsSchema>> {
  const db = database();
  const rows = await db
    .select()
    .from(fileImportRow)
    .where(
      and(
        eq(fileImportRow.importId, id),
        kind ? eq(fileImportRow.kind, kind) : undefined,
        gt(fileImportRow.line, after),
        ...wordsIn(q ?? ''),
      ),
    )
    .orderBy(asc(fileImportRow.line))
    .limit(limit + 1);
  const { find } = await fileColumns(db);
  const some = rows.slice(0, limit);
  return {
    rows: some.map(({ line, kind: is, itemId, label, cells, why, column, leftOut, decided, isDone }) => ({
      line,
      kind: is,
      itemId,
      label,
      cells: (cells as CellPlan[]).map((cell) => {
        const there = find(cell.column);
        // written by `checkStep`
        return {
          column: cell.column,
          label: there?.label ?? cell.column,
          ...(cell.exported === undefined ? {} : { exported: cell.exported }),
          now: cell.now,
          file: cell.file,
          becomes: there?.field ? shownAs(cell, there) : cell.file,
          isConflict: cell.isConflict,
          ...(cell.said ? { said: cell.said } : {}),
        };
      }),
      why,
      column: column === null ? null : (find(column)?.label ?? column),
      leftOut,
      decided,
      isDone,
    })),
    next: rows.length > limit ? (some.at(-1)?.line ?? null) : null,
  };
}

/** The value as it is written by the product; of a combination's price the text of the file says it best. */
function shownAs(
  { to, file }: CellPlan,
  {
    field,
    currency,
  }: { field: { show(value: never, context: { currency: string }): string } | null; currency: string },
): string {
  if (!field || (typeof to === 'object' && to !== null && !Array.isArray(to))) return file;
  return field.show(to as never, { currency }); // it was read by this very field
}
