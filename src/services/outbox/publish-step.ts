import { transaction } from '../../db/client';
import type { TaskRow } from '../../db/schema';
import { publish } from '../listings/publish/publish';
import { publishSchema } from '../listings/publish/publish-schema';
import { advanceTask } from '../records/tasks/advance-task';

/** Publishes what was asked for at this time: done once, in one transaction with the task's own end, or not at all. */
export const publishStep = (task: TaskRow, holder: string): Promise<TaskRow> =>
  transaction(async (tx) => {
    const actor = { id: task.byId, name: task.byName };
    const result = await publish(actor, publishSchema.parse(task.input), tx);
    return advanceTask(tx, task, holder, { cursor: null, done: 1, finished: true, result, runId: result.runId });
  });
