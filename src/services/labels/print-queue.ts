import { and, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { LabelRequest } from '../../core/label';
import { database, type Executor } from '../../db/client';
import { printJob, printStates } from '../../db/schema';

export const printJobSchema = z.object({
  id: z.number(),
  title: z.string(),
  state: z.enum(printStates),
  message: z.string().nullable(),
  byName: z.string(),
  at: z.string(),
  printedAt: z.string().nullable(),
});

const shown = 50;

/** Puts labels behind those that wait already. */
export async function queuePrint(
  db: Executor,
  byName: string,
  request: LabelRequest,
  title: string,
): Promise<{ id: number }> {
  const [{ insertId: id }] = await db
    .insert(printJob)
    .values({ title: title.slice(0, 200), request, state: 'waiting', byName, at: new Date() });
  return { id };
}

export async function findPrintJobs(): Promise<z.infer<typeof printJobSchema>[]> {
  const rows = await database().select().from(printJob).orderBy(desc(printJob.id)).limit(shown);
  return rows.map(({ id, title, state, message, byName, at, printedAt }) => ({
    id,
    title,
    state,
    message,
    byName,
    at: at.toISOString(),
    printedAt: printedAt?.toISOString() ?? null,
  }));
}

/** Takes a job that waits out of the queue. */
export async function stopPrint(id: number): Promise<void> {
  await database()
    .update(printJob)
    .set({ state: 'stopped', message: 'Taken out of the queue' })
    .where(and(eq(printJob.id, id), eq(printJob.state, 'waiting')));
}
