import { desc, inArray, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { job, run } from '../../db/schema';

export type RunProgress = {
  id: number;
  kind: string;
  title: string;
  byName: string;
  itemCount: number;
  createdAt: string;
  undoneBy: number | null;
  stopped: boolean;
  held: number;
  waiting: number;
  running: number;
  done: number;
  failed: number;
};

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
