import { and, desc, eq, inArray, lt, type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { batchLine } from '../../db/schema';
import { codeOf, loadBatch } from '../records/batches/load-batch';
import { type LineView, viewsOf } from './line-view';

export const findLinesSchema = z
  .object({
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(200).default(50),
    /** Only what waits for a person: no code, nothing found, or several. */
    open: z.stringbool().optional(),
    /** Only these lines. */
    ids: z
      .string()
      .regex(/^\d+(,\d+){0,199}$/)
      .optional(),
  })
  .strict();

const isOpen = sql`(${batchLine.kind} = 'none' or ${batchLine.finding} in ('unsure', 'unknown') or ${batchLine.asksGrade} = 1 or ${batchLine.asksPrice} = 1)`;

/** The lines of a batch, the newest first: those that were scanned into it, less what was moved to another, with what was moved here. */
export async function findLines(
  batchId: number,
  { before, limit, open, ids }: z.output<typeof findLinesSchema>,
): Promise<{ lines: LineView[]; next: number | null }> {
  const db = database();
  await loadBatch(db, batchId);
  const code = codeOf(batchId);
  // An item says itself in which batch it is.
  const isHere = sql`((${batchLine.kind} <> 'item' and ${batchLine.batchId} = ${batchId})
    or (${batchLine.kind} = 'item' and (${batchLine.itemId} in (select id from item where batch = ${code}))))`;
  const meant: (SQL | undefined)[] = [
    isHere,
    before ? lt(batchLine.id, before) : undefined,
    open ? and(isOpen, eq(batchLine.isUndone, false)) : undefined,
    ids ? inArray(batchLine.id, ids.split(',').map(Number)) : undefined,
  ];
  const rows = await db
    .select({ id: batchLine.id })
    .from(batchLine)
    .where(and(...meant))
    .orderBy(desc(batchLine.id))
    .limit(limit);
  const lines = await viewsOf(rows.map((row) => row.id));
  return { lines, next: rows.length < limit ? null : (rows.at(-1)?.id ?? null) };
}
