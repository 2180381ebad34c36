import { sql } from 'drizzle-orm';
import { liveStates } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import type { LoadedAccount } from '../accounts/load-accounts';

/** How many listings are live on each account on which a fee hangs on their number; nothing is counted on the others. */
export async function liveCounts(db: Executor, accounts: readonly LoadedAccount[]): Promise<Map<number, number>> {
  const counted = accounts.filter((one) => one.compiled.rules.fees.listing !== null).map((one) => one.id);
  if (counted.length === 0) return new Map();
  const rows = rowsOf<{ id: number; live: number }>(
    await db.execute(
      sql`select account_id as id, count(*) as live from listing where state in ${liveStates} and account_id in ${counted} group by account_id`,
    ),
  );
  return new Map(rows.map((row) => [row.id, row.live]));
}
