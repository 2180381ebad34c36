import { and, eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { task } from '../../db/schema';
import type { Actor } from '../access/actor';

export async function cancelScheduled(_actor: Actor, id: number): Promise<void> {
  const [result] = await database()
    .update(task)
    .set({ state: 'stopped', finishedAt: new Date() })
    .where(and(eq(task.id, id), eq(task.kind, 'publish'), eq(task.state, 'waiting')));
  if (result.affectedRows === 0) throw new NettingError('too-late', 'It has begun already, or was called off');
}
