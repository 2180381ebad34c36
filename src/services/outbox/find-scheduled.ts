import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { schedule, scheduleKinds } from '../../db/schema';

export const scheduledSchema = z.object({
  id: z.number(),
  kind: z.enum(scheduleKinds),
  title: z.string(),
  dueAt: z.string(),
  byName: z.string(),
});
export type Scheduled = z.infer<typeof scheduledSchema>;

/** What is to happen at a later time, soonest first. */
export async function findScheduled(): Promise<{ scheduled: Scheduled[] }> {
  const rows = await database()
    .select()
    .from(schedule)
    .where(eq(schedule.state, 'waiting'))
    .orderBy(asc(schedule.dueAt))
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
