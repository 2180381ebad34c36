import { and, eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, isAway } from '../../db/client';
import { type TaskRow, task } from '../../db/schema';
import { LostTask, releaseTask } from '../records/tasks/advance-task';
import { claimTask } from './claim-task';
import { steps } from './steps';

async function end(row: TaskRow, holder: string, state: 'failed' | 'stopped', message: string | null): Promise<void> {
  await database()
    .update(task)
    .set({ state, message: message?.slice(0, 300) ?? null, finishedAt: new Date(), leaseOwner: null })
    .where(and(eq(task.id, row.id), eq(task.leaseOwner, holder), eq(task.state, 'running')));
}

const isStopped = async (id: number): Promise<boolean> => {
  const [row] = await database().select({ stopAsked: task.stopAsked }).from(task).where(eq(task.id, id));
  return row?.stopAsked ?? true;
};

/**
 * Works on the next task until it is done, stopped, or the worker ends; what was done is kept step by step.
 * @returns whether there was one
 */
export async function runTask(holder: string, log: Logger, isEnding: () => boolean): Promise<boolean> {
  const claimed = await claimTask(holder);
  if (!claimed) return false;
  let row = claimed;
  log.info({ task: row.id, kind: row.kind, title: row.title }, 'task');
  try {
    while (row.state === 'running') {
      if (await isStopped(row.id)) {
        await end(row, holder, 'stopped', null);
        return true;
      }
      if (isEnding()) break;
      row = await steps[row.kind](row, holder);
    }
    if (row.state === 'running') await releaseTask(database(), row.id, holder);
  } catch (error) {
    if (error instanceof LostTask) return true;
    if (isAway(error)) throw error;
    log.error({ task: row.id, error: String(error) }, 'task failed');
    const sentence =
      error instanceof NettingError
        ? error.message
        : error instanceof z.ZodError
          ? 'It was written down in a way that is not understood'
          : 'Something went wrong; what was done is kept, and it can go on from there';
    await end(row, holder, 'failed', sentence);
  }
  return true;
}
