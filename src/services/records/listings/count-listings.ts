import { type SQL, sql } from 'drizzle-orm';
import { liveStates } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { today } from '../accounts/today';

export type AccountCounts = { live: number; today: number };
type Counted = { accountId: number; count: number };

/** How many listings each account has live, and how many were made today (UTC). */
export async function accountCounts(db: Executor): Promise<(id: number) => AccountCounts> {
  const ids = rowsOf<{ id: number }>(await db.execute(sql`select id from account`)).map((one) => one.id);
  if (ids.length === 0) return () => ({ live: 0, today: 0 });
  const counted = async (where: SQL) => {
    const rows = rowsOf<Counted>(
      await db.execute(
        sql`select account_id as accountId, count(*) as count from listing where ${where} group by account_id`,
      ),
    );
    return new Map(rows.map(({ accountId, count }) => [accountId, Number(count)]));
  };
  const [live, made] = [
    await counted(sql`state in ${liveStates}`),
    // The day as a value, the accounts by name: of each only what was made today is looked at.
    await counted(sql`account_id in ${ids} and live_since >= ${today()}`),
  ];
  return (id) => ({ live: live.get(id) ?? 0, today: made.get(id) ?? 0 });
}
