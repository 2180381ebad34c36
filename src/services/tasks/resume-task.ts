import { and, eq, inArray } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { task } from '../../db/schema';
import type { Actor } from '../access/actor';

/** Lets a task go on that was stopped or had failed: from where it was. */
export async function resumeTask(_actor: Actor, id: number): Promise<void> {
  const [{ affectedRows }] = await database()
    .update(task)
    .set({ state: 'waiting', stopAsked: false, message: null, finishedAt: null, dueAt: new Date() })
    .where(and(eq(task.id, id), inArray(task.state, ['stopped', 'failed'])));
  if (affectedRows === 0) throw new NettingError('too-late', 'It is under way, or over');
}
