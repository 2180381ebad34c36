import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { task, taskKinds } from '../../db/schema';

export const scheduledSchema = z.object({
  id: z.number(),
  kind: z.enum(taskKinds),
  title: z.string(),
  dueAt: z.string(),
  byName: z.string(),
});
export type Scheduled = z.infer<typeof scheduledSchema>;

/** What is to happen at a later time, soonest first. */
export async function findScheduled(): Promise<{ scheduled: Scheduled[] }> {
  const rows = await database()
    .select()
    .from(task)
    .where(and(inArray(task.kind, ['publish', 'edit']), eq(task.state, 'waiting'), gt(task.dueAt, new Date())))
    .orderBy(asc(task.dueAt))
    .limit(200);
  return {
    scheduled: rows.map(({ id, kind, title, dueAt, byName }) => ({
      id,
      kind,
      title,
      byName,
      dueAt: dueAt.toISOString(),
    })),
  };
}
