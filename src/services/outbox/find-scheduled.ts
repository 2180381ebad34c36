import { asc, eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { schedule } from '../../db/schema';
import type { ScheduleRow } from './run-due';

export type Scheduled = { id: number; kind: ScheduleRow['kind']; title: string; dueAt: string; byName: string };

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
