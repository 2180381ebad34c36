import { database } from '../../../db/client';
import { account } from '../../../db/schema';
import { unheardSince } from './hearing';

/** Accounts whose orders were not heard for longer than they should, with since when. */
export async function unheardAccounts(now: Date): Promise<{ id: number; name: string; since: Date }[]> {
  const rows = await database()
    .select({
      id: account.id,
      name: account.name,
      market: account.market,
      state: account.state,
      pausedAt: account.pausedAt,
      lockedUntil: account.lockedUntil,
      heardAt: account.heardAt,
      createdAt: account.createdAt,
    })
    .from(account);
  return rows.flatMap((row) => {
    const since = unheardSince(row, now);
    return since ? [{ id: row.id, name: row.name, since }] : [];
  });
}
