import { and, eq, inArray } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { task } from '../../db/schema';
import type { Actor } from '../access/actor';

/** Stops a task between two steps; what it has done stays, and it can go on from there. */
export async function stopTask(_actor: Actor, id: number): Promise<void> {
  await transaction(async (tx) => {
    const [row] = await tx.select().from(task).where(eq(task.id, id)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such task');
    if (row.state !== 'running' && row.state !== 'waiting') throw new NettingError('too-late', 'It is over already');
    await tx
      .update(task)
      .set(
        row.state === 'waiting' ? { state: 'stopped', stopAsked: true, finishedAt: new Date() } : { stopAsked: true },
      )
      .where(and(eq(task.id, id), inArray(task.state, ['running', 'waiting'])));
  });
}
