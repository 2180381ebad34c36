import { desc, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { job, run } from '../../db/schema';

export const runProgressSchema = z.object({
  id: z.number(),
  kind: z.string(),
  title: z.string(),
  byName: z.string(),
  itemCount: z.number(),
  createdAt: z.string(),
  undoneBy: z.number().nullable(),
  stopped: z.boolean(),
  held: z.number(),
  waiting: z.number(),
  running: z.number(),
  done: z.number(),
  failed: z.number(),
});
export type RunProgress = z.infer<typeof runProgressSchema>;

export async function findRuns(limit = 30): Promise<RunProgress[]> {
  const db = database();
  const runs = await db.select().from(run).orderBy(desc(run.id)).limit(limit);
  const ids = runs.map((one) => one.id);
  const counts = ids.length
    ? await db
        .select({ runId: job.runId, state: job.state, count: sql<number>`count(*)` })
        .from(job)
        .where(inArray(job.runId, ids))
        .groupBy(job.runId, job.state)
    : [];
  const countOf = (id: number, state: string) =>
    Number(counts.find((one) => one.runId === id && one.state === state)?.count ?? 0);
  return runs.map((one) => ({
    id: one.id,
    kind: one.kind,
    title: one.title,
    byName: one.byName,
    itemCount: one.itemCount,
    createdAt: one.createdAt.toISOString(),
    undoneBy: one.undoneBy,
    stopped: one.stoppedAt !== null,
    held: countOf(one.id, 'held'),
    waiting: countOf(one.id, 'waiting'),
    running: countOf(one.id, 'running'),
    done: countOf(one.id, 'done'),
    failed: countOf(one.id, 'failed'),
  }));
}
