import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import type { Executor } from '../../db/client';
import { type KitRow, kit, task } from '../../db/schema';

/** Sets that are broken up; held by the transaction that changes their lots. */
export async function loadKit(db: Executor, id: number, isHeld = false): Promise<KitRow> {
  const query = db.select().from(kit).where(eq(kit.id, id));
  const [found] = await (isHeld ? query.for('update') : query);
  if (!found) throw new NettingError('not-found', 'There are no such sets');
  return found;
}

export function refuseClosed({ state, name }: KitRow): void {
  if (state === 'closed') throw new NettingError('conflict', `${name} is closed`, { fix: 'Open it again first' });
}

/** Long work on the same sets goes one after the other, so that nothing goes twice. */
export async function refuseBusy(db: Executor, { taskId, name }: KitRow): Promise<void> {
  if (taskId === null) return;
  const [last] = await db.select({ state: task.state }).from(task).where(eq(task.id, taskId));
  if (last?.state === 'waiting' || last?.state === 'running')
    throw new NettingError('conflict', `Something is under way with ${name}`, { fix: 'Wait for it, or stop it' });
}
