import { database } from '../../../db/client';
import { ownTransaction } from '../../../db/raw';
import type { TaskRow } from '../../../db/schema';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { recheckPortion } from '../../records/listings/recheck-listings';
import { advanceTask } from '../../records/tasks/advance-task';

/** Computes the next listings of an account anew, and keeps that it did. */
export async function recheckStep(task: TaskRow, holder: string): Promise<TaskRow> {
  const { account } = task.input as { account: number }; // written by `recheckListings`
  const { after } = (task.cursor ?? { after: 0 }) as { after: number }; // written below
  const accounts = await loadAccounts(database(), [account]);
  return ownTransaction(async (db) => {
    const portion = await recheckPortion(db, account, accounts, after);
    return advanceTask(db, task, holder, {
      cursor: { after: portion.last },
      done: portion.count,
      finished: portion.count === 0,
      result: null,
    });
  });
}
