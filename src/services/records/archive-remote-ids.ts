import { type SQL, sql } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import type { previousRemoteId } from '../../db/schema';

/** Keeps the numbers that these listings (over `l`) had there in the history, before they get new ones. */
export async function archiveRemoteIds(
  db: Executor,
  where: SQL,
  why: (typeof previousRemoteId.$inferInsert)['why'],
): Promise<void> {
  await db.execute(sql`
    insert into previous_remote_id (listing_id, account_id, remote_id, remote_url, live_since, why, at)
    select l.id, l.account_id, l.remote_id, l.remote_url, l.live_since, ${why}, utc_timestamp(3)
    from listing l where ${where} and l.remote_id is not null and l.remote not in ('live', 'review', 'maybe', 'none')`);
}
