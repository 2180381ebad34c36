import { and, eq, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { job, run, task } from '../../db/schema';
import type { Actor } from '../access/actor';

/** Stops what a run has not sent yet; nothing is lost, it goes on where it was. Ends and lower quantities are not held: they never wait. */
export async function stopRun(_actor: Actor, runId: number): Promise<{ held: number }> {
  return transaction(async (tx) => {
    const [result] = await tx
      .update(job)
      .set({ state: 'held' })
      .where(and(eq(job.runId, runId), eq(job.state, 'waiting'), sql`${job.priority} > 1`));
    const [known] = await tx.update(run).set({ stoppedAt: new Date() }).where(eq(run.id, runId));
    // A change of many that is still being carried out stops between two portions.
    await tx
      .update(task)
      .set({ stopAsked: true })
      .where(and(eq(task.runId, runId), inArray(task.state, ['waiting', 'running'])));
    if (known.affectedRows === 0) throw new NettingError('not-found', 'There is no such run');
    return { held: result.affectedRows };
  });
}
