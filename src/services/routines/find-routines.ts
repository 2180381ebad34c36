import { asc, desc, eq } from 'drizzle-orm';
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
  // Each its own: one that runs once a year shows its runs beside one that runs every day.
  const runs = await Promise.all(
    rows.map((row) => db.select().from(run).where(eq(run.routineId, row.id)).orderBy(desc(run.id)).limit(mostRuns)),
  );
  return rows.map(({ byId: _by, at: _at, dueAt, lastAt, ...row }, index) => ({
    ...row,
    dueAt: dueAt?.toISOString() ?? null,
    lastAt: lastAt?.toISOString() ?? null,
    runs: (runs[index] ?? []).map(({ id, createdAt, byName, itemCount, undoneBy }) => ({
      id,
      at: createdAt.toISOString(),
      byName,
      itemCount,
      undoneBy,
    })),
  }));
}
