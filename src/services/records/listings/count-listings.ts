import { type SQL, sql } from 'drizzle-orm';
import { liveStates, theirDayBegan } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { account } from '../../../db/schema';
import { clockOf } from '../accounts/clock-of';

export type AccountCounts = { live: number; today: number };
type Counted = { accountId: number; count: number };

/** How many listings each account has live, and how many were made today, by its marketplace's clock. */
export async function accountCounts(db: Executor): Promise<(id: number) => AccountCounts> {
  const accounts = await db
    .select({
      id: account.id,
      clockAheadMs: account.clockAheadMs,
      clockBeforeMs: account.clockBeforeMs,
      clockChangedAt: account.clockChangedAt,
    })
    .from(account);
  if (accounts.length === 0) return () => ({ live: 0, today: 0 });
  const counted = async (where: SQL) => {
    const rows = rowsOf<Counted>(
      await db.execute(
        sql`select account_id as accountId, count(*) as count from listing where ${where} group by account_id`,
      ),
    );
    return new Map(rows.map(({ accountId, count }) => [accountId, Number(count)]));
  };
  const now = new Date();
  const [live, made] = [
    await counted(sql`state in ${liveStates}`),
    // The day as a value, the accounts by name: of each only what was made today is looked at.
    await counted(
      sql.join(
        accounts.map((one) => sql`(account_id = ${one.id} and live_since >= ${theirDayBegan(clockOf(one), now)})`),
        sql` or `,
      ),
    ),
  ];
  return (id) => ({ live: live.get(id) ?? 0, today: made.get(id) ?? 0 });
}
