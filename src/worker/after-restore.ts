import { sql } from 'drizzle-orm';
import { closeDatabase, database } from '../db/client';

/**
 * Marks a database that was just brought back: every account is heard and compared before anything is sent; nobody holds
 * anything; and what waited to be made may have been made since, so that it is looked for first.
 */
const db = database();
await db.execute(
  sql`update account set restored_at = utc_timestamp(3), lane_owner = null, lane_until = null, polled_at = null`,
);
await db.execute(sql`delete from worker_presence`);
await db.execute(
  sql`update task set state = 'waiting', lease_owner = null, lease_until = null where state = 'running'`,
);
await db.execute(
  sql`update job set state = 'waiting', lease_owner = null, due_at = utc_timestamp(3) where state = 'running'`,
);
const open = sql`l.remote in ('none', 'maybe') and l.wanted = 'live' and j.state in ('waiting', 'held')`;
await db.execute(sql`update job j join listing l on l.id = j.listing_id join item i on i.id = l.item_id
  set j.idempotency_key = null, j.request = json_object('kind', 'create', 'content', json_object('sku', i.sku), 'fields', json_array(), 'photoIds', json_array(),
    'firstSentAt', '1970-01-01T00:00:00.000Z', 'openSince', date_format(utc_timestamp(), '%Y-%m-%dT%H:%i:%s.000Z'))
  where ${open} and j.request is null`);
await db.execute(sql`update job j join listing l on l.id = j.listing_id set l.remote = 'maybe' where ${open}`);
await closeDatabase();
