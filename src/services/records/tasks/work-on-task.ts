import { database } from '../../../db/client';
import type { TaskRow } from '../../../db/schema';
import { releaseTask } from './advance-task';

export type TakeStep = (task: TaskRow, holder: string) => Promise<TaskRow>;

/** So long a request works on a task itself before it leaves the rest to the background. */
const patienceMs = 1_500;

/** Takes steps of a task that is held here until it is done or patience ends; the rest is given back for a worker. */
export async function workOnTask(begun: TaskRow, holder: string, step: TakeStep): Promise<TaskRow> {
  const until = Date.now() + patienceMs;
  let last = begun;
  try {
    do last = await step(last, holder);
    while (last.state === 'running' && Date.now() < until);
  } finally {
    await releaseTask(database(), begun.id, holder);
  }
  return last;
}
