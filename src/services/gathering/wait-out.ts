import { and, eq } from 'drizzle-orm';
import { isTransient, NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { type TaskRow, task } from '../../db/schema';

/** So long a marketplace may be silent before a person is told; a little longer than their longest pauses. */
const longestMs = 60_000;
const firstMs = 2_000;

/**
 * A step that speaks with a marketplace: where that does not answer for a while the task waits and goes on from where it
 * was. Anything else ends it, with its reason.
 */
export async function waitOut(row: TaskRow, holder: string, step: () => Promise<TaskRow>): Promise<TaskRow> {
  try {
    return await step();
  } catch (error) {
    if (!(error instanceof NettingError) || !isTransient(error.code)) throw error;
    const wait = Math.min(longestMs, Math.max(firstMs, error.facts.retryAfterMs ?? firstMs));
    await database()
      .update(task)
      .set({
        state: 'waiting',
        dueAt: new Date(Date.now() + wait),
        leaseOwner: null,
        leaseUntil: null,
        message: `${error.message}: it is asked again in ${Math.round(wait / 1_000)} s`.slice(0, 300),
      })
      .where(and(eq(task.id, row.id), eq(task.leaseOwner, holder), eq(task.state, 'running')));
    return { ...row, state: 'waiting' };
  }
}
