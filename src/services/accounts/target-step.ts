import { and, asc, eq, gt } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import { ownTransaction } from '../../db/raw';
import { account, item, type TaskRow } from '../../db/schema';
import { targetDrafts } from '../changes/commit/target-drafts';
import { holdItems } from '../records/items/hold-items';
import { refreshListings } from '../records/listings/refresh-listings';
import { advanceTask } from '../records/tasks/advance-task';

const portion = 300;

/** Makes drafts of the next items that belong to an account, and leaves those out again that do not. */
async function targetPortion(db: Executor, accountId: number, after: number): Promise<{ last: number; count: number }> {
  const ids = await db
    .select({ id: item.id })
    .from(item)
    .where(and(eq(item.standing, 'active'), gt(item.id, after)))
    .orderBy(asc(item.id))
    .limit(portion);
  const { items, listings } = await holdItems(
    db,
    ids.map((one) => one.id),
  );
  const [shop] = await db.select().from(account).where(eq(account.id, accountId));
  const turned = shop ? await targetDrafts(db, items, listings, [shop]) : [];
  await refreshListings(db, [...new Set(turned.map((row) => row.itemId))]);
  return { last: ids.at(-1)?.id ?? after, count: ids.length };
}

/** The next items of a task that asks which belong to an account, and keeps how far it is. */
export async function targetStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { account: accountId } = task.input as { account: number }; // written by `updateAccount`
  const { after } = (task.cursor ?? { after: 0 }) as { after: number }; // written below
  return ownTransaction(async (db) => {
    const done = await targetPortion(db, accountId, after);
    return advanceTask(db, task, holder, {
      cursor: { after: done.last },
      done: done.count,
      finished: done.count < portion,
      result: null,
    });
  });
}
