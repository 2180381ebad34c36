import { and, eq } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { task } from '../../../db/schema';
import { LostTask } from './advance-task';
import { taskLease } from './start-task';

/** A sign of life within a long step: the task stays with the one who holds it. */
export async function keepTask(db: Executor, id: number, holder: string): Promise<void> {
  const [{ affectedRows }] = await db
    .update(task)
    .set({ leaseUntil: taskLease })
    .where(and(eq(task.id, id), eq(task.leaseOwner, holder), eq(task.state, 'running')));
  if (affectedRows !== 1) throw new LostTask(id);
}
