import { and, eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { schedule } from '../../db/schema';
import type { Actor } from '../access/actor';

export async function cancelScheduled(_actor: Actor, id: number): Promise<void> {
  const [result] = await database()
    .update(schedule)
    .set({ state: 'cancelled' })
    .where(and(eq(schedule.id, id), eq(schedule.state, 'waiting')));
  if (result.affectedRows === 0) throw new NettingError('too-late', 'It has begun already, or was called off');
}
