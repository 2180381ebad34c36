import { sql } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import { rowsOf } from '../../db/rows';
export type AccountCounts = { accountId: number; live: number; today: number };

/** How many listings each account has live, and how many were made today (UTC). */
export async function accountCounts(db: Executor): Promise<(id: number) => Omit<AccountCounts, 'accountId'>> {
  const rows = rowsOf<AccountCounts>(
    await db.execute(sql`select a.id as accountId,
      (select count(*) from listing l where l.account_id = a.id and l.state in ('live', 'changed', 'conflict')) as live,
      (select count(*) from listing l where l.account_id = a.id and l.live_since >= utc_date()) as today
      from account a`),
  );
  return (id) => {
    const found = rows.find((row) => row.accountId === id);
    return { live: Number(found?.live ?? 0), today: Number(found?.today ?? 0) };
  };
}
