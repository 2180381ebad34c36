import { and, inArray, lt } from 'drizzle-orm';
import { database } from '../../db/client';
import { task } from '../../db/schema';

const keptDays = 60;

/** Tasks that were over long ago go; what they changed stays in the history. */
export async function forgetTasks(now: Date): Promise<void> {
  await database()
    .delete(task)
    .where(
      and(
        inArray(task.state, ['done', 'failed', 'stopped']),
        lt(task.finishedAt, new Date(now.getTime() - keptDays * 86_400_000)),
      ),
    );
}
