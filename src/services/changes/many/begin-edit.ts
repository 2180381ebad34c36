import type { Step } from '../../../core/edit';
import type { Executor } from '../../../db/client';
import { run, type TaskRow } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { startTask } from '../../records/tasks/start-task';
import type { SendPart } from '../commit/queue-changes';
import type { EditTask } from './edit-step';

export type EditOrder = {
  /** The items, in the order of their numbers. */
  ids: number[];
  steps: Step[];
  send: boolean;
  /** Of what goes out only this part. */
  part?: SendPart;
  title: string;
  /** The routine that it is a run of. */
  routineId?: number;
  /** Who begins it at once; a worker does when left out. */
  holder?: string;
  /** Not before then; as soon as somebody is free when left out. */
  dueAt?: Date;
};

/** Writes a change of many down as a run and its task, in the caller's transaction. */
export async function beginEdit(
  tx: Executor,
  actor: Actor,
  { ids, steps, send, part, title, routineId, holder, dueAt }: EditOrder,
): Promise<TaskRow> {
  const [{ insertId: runId }] = await tx.insert(run).values({
    kind: 'edit',
    title,
    detail: { steps, send, part },
    itemCount: 0,
    routineId: routineId ?? null,
    byName: actor.name,
  });
  const input: EditTask = { ids, steps, send, part };
  return startTask(tx, actor, { kind: 'edit', title, input, total: ids.length, runId, holder, dueAt });
}
