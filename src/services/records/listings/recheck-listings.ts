import { eq, sql } from 'drizzle-orm';
import { priorities } from '../../../core/sync';
import { database, type Executor, transaction } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { account, listing } from '../../../db/schema';
import { systemActor } from '../../access/actor';
import { contextChanged } from '../accounts/context-changed';
import { type LoadedAccount, loadAccounts } from '../accounts/load-accounts';
import { isThere } from '../items/is-there';
import { startTask } from '../tasks/start-task';
import { enqueueJobs } from './enqueue-jobs';
import { refreshListings } from './refresh-listings';

const portion = 200;
/** More listings than these are computed in the background. */
const mostAtOnce = 3_000;

/** Computes the next listings of an account anew, in the caller's transaction; none are left when `count` is 0. */
export async function recheckPortion(
  db: Executor,
  accountId: number,
  accounts: LoadedAccount[],
  after: number,
): Promise<{ last: number; count: number }> {
  const rows = await db
    .select({ id: listing.id, itemId: listing.itemId })
    .from(listing)
    .where(sql`${listing.accountId} = ${accountId} and ${listing.id} > ${after}`)
    .orderBy(listing.id)
    .limit(portion);
  await refreshListings(db, [...new Set(rows.map((row) => row.itemId))], accounts);
  // Another reserve, cap or limit means other units on offer: that is told like any change of stock.
  if (rows.length)
    await enqueueJobs(db, {
      where: sql`l.id in ${rows.map((row) => row.id)} and ${isThere} and coalesce(l.wanted_quantity <> l.sent_quantity, 1)`,
      priority: sql`if(l.wanted_quantity < 1, ${priorities.end}, ${priorities.quantity})`,
      runId: null,
    });
  return { last: rows.at(-1)?.id ?? after, count: rows.length };
}

/**
 * Computes every listing of an account anew, in portions, so that what no longer fits is known before it fails. Many
 * are computed in the background, as a task.
 */
export async function recheckListings(accountId: number): Promise<void> {
  await contextChanged(database(), eq(account.id, accountId));
  const accounts = await loadAccounts(database(), [accountId]);
  const [row] = rowsOf<{ count: number }>(
    await database().execute(sql`select count(*) as count from listing where account_id = ${accountId}`),
  );
  const total = Number(row?.count ?? 0);
  if (total > mostAtOnce) {
    const title = `${accounts[0]?.name ?? 'An account'}: listings computed anew`;
    await startTask(database(), systemActor, { kind: 'recheck', title, input: { account: accountId }, total });
    return;
  }
  for (let after = 0; ; ) {
    const { last, count } = await transaction((tx) => recheckPortion(tx, accountId, accounts, after));
    if (count === 0) return;
    after = last;
  }
}
