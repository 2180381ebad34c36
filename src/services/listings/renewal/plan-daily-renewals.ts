import { eq, sql } from 'drizzle-orm';
import { database, withConnection } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { account as accountTable } from '../../../db/schema';
import { systemActor } from '../../access/actor';
import { dueListings } from './due-renewals';
import { renew } from './renew';

/** The daily routine: for each account with a rule, as many as are left of the day's number. One worker at a time does it. */
export async function planDailyRenewals(now: Date): Promise<number> {
  return withConnection(async (connection) => {
    const name = 'netting-daily-renewals';
    const [locked] = await connection.query('select get_lock(?, 0) as held', [name]);
    if (!(locked as { held: number }[])[0]?.held) return 0;
    try {
      return await planAccounts(now);
    } finally {
      await connection.query('select release_lock(?)', [name]);
    }
  });
}

async function planAccounts(now: Date): Promise<number> {
  const accounts = await database().select().from(accountTable).where(eq(accountTable.state, 'connected'));
  let planned = 0;
  for (const row of accounts) {
    if (!row.renewal?.on || row.pausedAt) continue;
    const [today] = rowsOf<{ count: number }>(
      await database().execute(
        sql`select count(*) as count from job where account_id = ${row.id} and (kind = 'renew' or outcome = 'renewed') and created_at >= utc_date()`,
      ),
    );
    const left = row.renewal.mostPerDay - (today?.count ?? 0);
    if (left <= 0) continue;
    const listings = await dueListings(row.id, row.renewal, now, left);
    if (listings.length === 0) continue;
    await renew(systemActor, { listings }, `Daily: ${listings.length.toLocaleString('en')} on ${row.name}`);
    planned += listings.length;
  }
  return planned;
}
