import { type SQL, sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';

/**
 * These listings (over `l`), of which nothing stands there, are to be made again: the numbers that they had there are
 * kept in the history. What was only switched off there keeps its number, and is switched on.
 */
export async function forgetRemoteIds(db: Executor, where: SQL): Promise<void> {
  await db.execute(sql`
    insert into previous_remote_id (listing_id, account_id, remote_id, remote_url, live_since, why, at)
    select l.id, l.account_id, l.remote_id, l.remote_url, l.live_since, 'made-again', utc_timestamp(3)
    from listing l where ${where} and l.remote_id is not null and l.remote in ('ended', 'sold', 'refused', 'gone')`);
  await db.execute(sql`
    update listing l set
      l.remote_id = if(l.remote = 'off', l.remote_id, null),
      l.remote_url = if(l.remote = 'off', l.remote_url, null),
      l.remote = 'none'
    where ${where} and l.remote in ('off', 'ended', 'sold', 'refused', 'gone')`);
}
