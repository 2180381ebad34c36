import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import type { Executor } from '../../db/client';
import { fileImport, task } from '../../db/schema';

export type ImportRow = typeof fileImport.$inferSelect & {
  /** Why carrying it out does not go on by itself: it was stopped, or broke off. */
  halted: string | null;
};

/** One that broke off while it was compared stands open again, with nothing kept of it. */
export async function loadImport(db: Executor, id: number): Promise<ImportRow> {
  const [found] = await db
    .select({ row: fileImport, task: { state: task.state, message: task.message } })
    .from(fileImport)
    .leftJoin(task, eq(task.id, fileImport.taskId))
    .where(eq(fileImport.id, id));
  if (!found) throw new NettingError('not-found', 'This file is not kept any more');
  const hasEnded = found.task === null || found.task.state === 'failed' || found.task.state === 'stopped';
  const { row } = found;
  if (row.state === 'checking' && hasEnded) return { ...row, state: 'open', halted: null };
  const isHalted = row.state === 'applying' && found.task !== null && hasEnded;
  return { ...row, halted: isHalted ? (found.task?.message ?? 'It was stopped') : null };
}
