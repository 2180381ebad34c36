import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { routine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { type AppliedEdit, applyEdit } from '../changes/many/apply-edit';
import { loadRoutine, selectionOf } from './load-routine';

/** Carries a routine out now, on all that its filter finds. */
export async function runRoutine(actor: Actor, id: number): Promise<AppliedEdit> {
  const row = await loadRoutine(id);
  const { name, steps, send } = row;
  const applied = await applyEdit(actor, { selection: selectionOf(row), steps, send, title: name }, id);
  await database()
    .update(routine)
    .set({
      lastAt: new Date(),
      lastSaid:
        applied.total === 1 ? 'One item was looked at' : `${applied.total.toLocaleString('en')} items were looked at`,
      needsLook: false,
    })
    .where(eq(routine.id, id));
  return applied;
}
