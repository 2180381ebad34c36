import { and, inArray, lte } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { task } from '../../../db/schema';
import type { EditTask } from './edit-step';

/**
 * Whether another change of many, or one that is being taken back, is not over and touches some of these items. Then this
 * one waits for its turn: what was asked for later holds, and two do not wait for each other item by item.
 */
export async function followsAnother(db: Executor, ids: readonly number[]): Promise<boolean> {
  const open = await db
    .select({ kind: task.kind, input: task.input })
    .from(task)
    .where(
      and(
        inArray(task.kind, ['edit', 'undo']),
        inArray(task.state, ['waiting', 'running']),
        lte(task.dueAt, new Date()),
      ),
    )
    .limit(20);
  if (open.length === 0) return false;
  const wanted = new Set(ids);
  // Which items a run has changed is not known before it is read; it counts as touching all.
  return open.some(({ kind, input }) => kind === 'undo' || (input as EditTask).ids.some((id) => wanted.has(id)));
}
