import { and, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { job, run } from '../../db/schema';

export const findRunsSchema = z.object({
  run: z.coerce.number().int().optional().describe('Only this one'),
  before: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(30),
});

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
  /** Listings that it made, and that it ended: what can be taken back of it. */
  listed: z.number(),
  ended: z.number(),
});
export type RunProgress = z.infer<typeof runProgressSchema>;

/** What was done to many, newest first, each with how its sending stands. */
export async function findRuns(
  input: z.infer<typeof findRunsSchema>,
): Promise<{ runs: RunProgress[]; next: number | null }> {
  const db = database();
  const rows = await db
    .select()
    .from(run)
    .where(and(input.run ? eq(run.id, input.run) : undefined, input.before ? lt(run.id, input.before) : undefined))
    .orderBy(desc(run.id))
    .limit(input.limit + 1);
  const runs = rows.slice(0, input.limit);
  const ids = runs.map((one) => one.id);
  const counts = ids.length
    ? await db
        .select({
          runId: job.runId,
          state: job.state,
          count: sql<number>`count(*)`,
          listed: sql<number>`sum(coalesce(${job.outcome}, '') = 'created')`,
          ended: sql<number>`sum(coalesce(${job.outcome}, '') = 'ended')`,
        })
        .from(job)
        .where(inArray(job.runId, ids))
        .groupBy(job.runId, job.state)
    : [];
  const byRun = new Map<number | null, typeof counts>();
  for (const one of counts) byRun.set(one.runId, [...(byRun.get(one.runId) ?? []), one]);
  const countOf = (id: number, state: string) => Number(byRun.get(id)?.find((one) => one.state === state)?.count ?? 0);
  const outcomeOf = (id: number, outcome: 'listed' | 'ended') =>
    (byRun.get(id) ?? []).reduce((sum, one) => sum + Number(one[outcome]), 0);
  const views = runs.map((one) => ({
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
    listed: outcomeOf(one.id, 'listed'),
    ended: outcomeOf(one.id, 'ended'),
  }));
  return { runs: views, next: rows.length > input.limit ? (runs.at(-1)?.id ?? null) : null };
}
