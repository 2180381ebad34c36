import { sql } from 'drizzle-orm';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { isDrifted } from '../../records/listings/is-drifted';
import { isGone } from '../../sync/find-gone';
import { type Found, page } from './need';

/** What sends, and what does the long work, when it is not there: nothing goes out then, and nobody else says so. */
export async function sendersThatNeed(): Promise<Found[]> {
  const [row] = rowsOf<{ accounts: number; senders: number; waiting: number; routines: number }>(
    await database().execute(sql`select (select count(*) from account) as accounts,
      (select count(*) from account where lane_until > utc_timestamp(3) - interval 60 second) as senders,
      (select count(*) from job where state = 'waiting') as waiting,
      (select count(*) from routine where needs_look = 1) as routines`),
  );
  const isAway = Number(row?.accounts) > 0 && Number(row?.senders) === 0;
  return [
    page(
      'sender',
      'Nothing is sent: the sender is not running',
      'Start Netting anew; what waits is kept',
      '/outbox',
      { count: isAway ? Math.max(1, Number(row?.waiting)) : 0 },
      true,
    ),
    page('routines', 'A routine did not do what it was to do, or was only tried', 'Look at it', '/routines', {
      count: row?.routines ?? 0,
    }),
  ];
}

/** What they show otherwise than it was sent, or not any more. */
export async function differencesThatNeed(): Promise<Found[]> {
  const [row] = rowsOf<{ drift: number; gone: number }>(
    await database().execute(sql`select
      (select count(*) from listing where ${isDrifted}) as drift,
      (select count(*) from listing where ${isGone}) as gone`),
  );
  return [
    page('differences', 'Shown there otherwise than sent', 'Take theirs over, or send ours again', '/differences', {
      count: row?.drift ?? 0,
    }),
    page('gone', 'Not there any more, though it should be', 'List it again, or let it be ended', '/differences', {
      count: row?.gone ?? 0,
    }),
  ];
}
