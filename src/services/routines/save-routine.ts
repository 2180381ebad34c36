import { eq } from 'drizzle-orm';
import type { z } from 'zod';
import { nextDue, routinePlanSchema, routineSchema } from '../../core/edit';
import { NettingError } from '../../core/errors';
import { database, isDuplicate } from '../../db/client';
import { routine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { checkSteps } from '../changes/many/check-steps';
import { loadRoutine } from './load-routine';

export const changeRoutineSchema = routineSchema.partial().extend({ plan: routinePlanSchema.nullable().optional() });

async function named<T>(name: string | undefined, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (isDuplicate(error))
      throw new NettingError('conflict', `There is a routine called ${name} already`, {
        field: 'name',
        fix: 'Give it another name',
      });
    throw error;
  }
}

/** Keeps a series of steps with what it is for under a name. */
export async function saveRoutine(actor: Actor, input: z.infer<typeof routineSchema>): Promise<{ id: number }> {
  const db = database();
  await checkSteps(db, input.steps);
  return named(input.name, async () => {
    const [{ insertId: id }] = await db
      .insert(routine)
      .values({ ...input, plan: null, byId: actor.id, byName: actor.name, at: new Date() });
    return { id };
  });
}

/** Changes what a routine does, what it is for, or when it is carried out by itself. */
export async function changeRoutine(
  actor: Actor,
  id: number,
  { plan, ...input }: z.infer<typeof changeRoutineSchema>,
): Promise<void> {
  const db = database();
  await loadRoutine(id);
  if (input.steps) await checkSteps(db, input.steps);
  const now = new Date();
  // What is only tried is tried at once, and then when it is due.
  const dueAt = plan ? (plan.isTrial ? now : nextDue(plan, now)) : null;
  const planned = plan === undefined ? {} : { plan, dueAt, lastSaid: null, needsLook: false };
  await named(input.name, () =>
    db
      .update(routine)
      .set({ ...input, ...planned, byId: actor.id, byName: actor.name, at: now })
      .where(eq(routine.id, id)),
  );
}
