import { and, eq, sql } from 'drizzle-orm';
import { transaction } from '../../db/client';
import { job, run } from '../../db/schema';
import type { Actor } from '../access/actor';

export async function resumeRun(_actor: Actor, runId: number): Promise<{ resumed: number }> {
  return transaction(async (tx) => {
    const [result] = await tx
      .update(job)
      .set({ state: 'waiting', dueAt: sql`utc_timestamp(3)` })
      .where(and(eq(job.runId, runId), eq(job.state, 'held')));
    await tx.update(run).set({ stoppedAt: null }).where(eq(run.id, runId));
    return { resumed: result.affectedRows };
  });
}
