import { and, eq, inArray } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { run, task } from '../../db/schema';
import type { Actor } from '../access/actor';

/** Calls off what was to happen at a later time; nothing of it has happened, so nothing stays behind to be taken back. */
export async function cancelScheduled(_actor: Actor, id: number): Promise<void> {
  await transaction(async (tx) => {
    const [result] = await tx
      .update(task)
      .set({ state: 'stopped', finishedAt: new Date() })
      .where(and(eq(task.id, id), inArray(task.kind, ['publish', 'edit']), eq(task.state, 'waiting')));
    if (result.affectedRows === 0) throw new NettingError('too-late', 'It has begun already, or was called off');
    const [{ runId } = { runId: null }] = await tx.select({ runId: task.runId }).from(task).where(eq(task.id, id));
    if (runId !== null) await tx.delete(run).where(and(eq(run.id, runId), eq(run.itemCount, 0)));
  });
}
