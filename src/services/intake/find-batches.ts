import { desc, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { batch, batchStates } from '../../db/schema';

export const findBatchesSchema = z
  .object({
    state: z.enum(batchStates).optional(),
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(100).default(50),
  })
  .strict();

export const batchRowSchema = z.object({
  id: z.number(),
  name: z.string(),
  supplier: z.string(),
  boughtOn: z.string().nullable(),
  totalCost: z.number().nullable(),
  state: z.enum(batchStates),
  byName: z.string(),
  createdAt: z.string(),
  lines: z.number(),
  units: z.number(),
  /** Lines of which nothing was made yet. */
  open: z.number(),
  /** Its last line. */
  lastAt: z.string().nullable(),
});

/** Batches, the newest first. */
export async function findBatches({
  state,
  before,
  limit,
}: z.output<typeof findBatchesSchema>): Promise<{ batches: z.infer<typeof batchRowSchema>[]; next: number | null }> {
  const db = database();
  const meant = [...(state ? [sql`${batch.state} = ${state}`] : []), ...(before ? [sql`${batch.id} < ${before}`] : [])];
  const rows = await db
    .select()
    .from(batch)
    .where(meant.length ? sql.join(meant, sql` and `) : undefined)
    .orderBy(desc(batch.id))
    .limit(limit);
  const counts = rows.length
    ? rowsOf<{ id: number; lines: number; units: number; open: number; last: Date | null }>(
        await db.execute(sql`select batch_id as id, count(*) as \`lines\`, coalesce(sum(if(kind = 'none', 0, units)), 0) as units,
          coalesce(sum(kind = 'none'), 0) as open, max(at) as last
          from batch_line where batch_id in ${rows.map((row) => row.id)} and is_undone = 0 group by batch_id`),
      )
    : [];
  const byId = new Map(counts.map((one) => [one.id, one]));
  return {
    batches: rows.map(({ id, name, supplier, boughtOn, totalCost, state: now, byName, createdAt }) => {
      const one = byId.get(id);
      return {
        id,
        name,
        supplier,
        boughtOn,
        totalCost,
        state: now,
        byName,
        createdAt: createdAt.toISOString(),
        lines: Number(one?.lines ?? 0),
        units: Number(one?.units ?? 0),
        open: Number(one?.open ?? 0),
        lastAt: one?.last ? new Date(one.last).toISOString() : null,
      };
    }),
    next: rows.length < limit ? null : (rows.at(-1)?.id ?? null),
  };
}
