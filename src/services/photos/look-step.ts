import { and, asc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { photoFile, type TaskRow, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { lookAtPhotos } from '../records/photos/look-at-photos';
import { advanceTask } from '../records/tasks/advance-task';
import { startTask } from '../records/tasks/start-task';

/** Looks at all photos that nobody has looked at, in the background; once at a time. */
export async function beginLooking(actor: Actor): Promise<{ taskId: number | null }> {
  return transaction(async (tx) => {
    const [under] = await tx
      .select({ id: task.id })
      .from(task)
      .where(and(eq(task.kind, 'look'), inArray(task.state, ['waiting', 'running'])));
    if (under) return { taskId: under.id };
    const [open] = rowsOf<{ count: number }>(
      await tx.execute(sql`select count(*) as count from photo_file f where f.sharp is null and f.made_from is null`),
    );
    const total = Number(open?.count ?? 0);
    if (total === 0) return { taskId: null };
    const { id } = await startTask(tx, actor, { kind: 'look', title: 'Looking at photos', input: {}, total });
    return { taskId: id };
  });
}

const portion = 40;

export async function lookStep(row: TaskRow, holder: string): Promise<TaskRow> {
  const db = database();
  const { after } = (row.cursor ?? { after: '' }) as { after: string }; // written below
  const open = await db
    .select({ hash: photoFile.hash })
    .from(photoFile)
    .where(and(isNull(photoFile.sharp), isNull(photoFile.madeFrom), gt(photoFile.hash, after)))
    .orderBy(asc(photoFile.hash))
    .limit(portion);
  await lookAtPhotos(
    db,
    open.map((one) => one.hash),
  );
  return advanceTask(db, row, holder, {
    cursor: { after: open.at(-1)?.hash ?? after },
    done: open.length,
    finished: open.length < portion,
    result: null,
  });
}
