import { asc, desc, isNotNull } from 'drizzle-orm';
import { z } from 'zod';
import { routinePlanSchema, routineSchema } from '../../core/edit';
import { database } from '../../db/client';
import { routine, run } from '../../db/schema';

export const foundRoutineSchema = routineSchema.extend({
  id: z.number(),
  plan: routinePlanSchema.nullable(),
  dueAt: z.string().nullable(),
  lastAt: z.string().nullable(),
  lastSaid: z.string().nullable(),
  needsLook: z.boolean(),
  byName: z.string(),
  /** Its last runs, newest first. */
  runs: z.array(
    z.object({
      id: z.number(),
      at: z.string(),
      byName: z.string(),
      itemCount: z.number(),
      undoneBy: z.number().nullable(),
    }),
  ),
});
export type FoundRoutine = z.infer<typeof foundRoutineSchema>;

const mostRuns = 10;

/** The routines by their names, each with its plan and its last runs. */
export async function findRoutines(): Promise<FoundRoutine[]> {
  const db = database();
  const rows = await db.select().from(routine).orderBy(asc(routine.name));
  const runs = await db.select().from(run).where(isNotNull(run.routineId)).orderBy(desc(run.id)).limit(500);
  return rows.map(({ byId: _by, at: _at, dueAt, lastAt, ...row }) => ({
    ...row,
    dueAt: dueAt?.toISOString() ?? null,
    lastAt: lastAt?.toISOString() ?? null,
    runs: runs
      .filter((one) => one.routineId === row.id)
      .slice(0, mostRuns)
      .map(({ id, createdAt, byName, itemCount, undoneBy }) => ({
        id,
        at: createdAt.toISOString(),
        byName,
        itemCount,
        undoneBy,
      })),
  }));
}
