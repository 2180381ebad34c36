import { sql } from 'drizzle-orm';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { unheardAccounts } from '../../records/listings/unheard-accounts';
import { type Found, page } from './need';

/** Accounts that sell nothing as they are, one by one: what is live or waits there is what it is about. */
export async function accountsThatNeed(): Promise<Found[]> {
  const rows = rowsOf<{ id: number; name: string; why: 'reconnect' | 'locked' | 'paused' | 'unwell'; count: number }>(
    await database().execute(sql`select a.id, a.name,
        case when a.state = 'reconnect' then 'reconnect' when a.locked_until > utc_timestamp(3) then 'locked'
          when a.paused_at is not null then 'paused' else 'unwell' end as why,
        (select count(*) from listing l where l.account_id = a.id and l.wanted = 'live') as count
      from account a where a.state = 'reconnect' or a.locked_until > utc_timestamp(3) or a.paused_at is not null
        or a.unwell_since < utc_timestamp(3) - interval 10 minute order by a.id`),
  );
  const said = {
    reconnect: ['does not let Netting in any more', 'Connect it again'],
    locked: ['has locked the account for a while', 'Wait, and see what they say; what is due is sent afterwards'],
    paused: ['is paused', 'Let it go on when you are ready'],
    unwell: ['has not answered for ten minutes', 'Wait: it is asked again and again'],
  } as const;
  return rows.map(({ id, name, why, count }) =>
    page(
      `account-${id}-${why}`,
      `${name} ${said[why][0]}`,
      said[why][1],
      `/marketplaces/${id}`,
      { count },
      why === 'reconnect',
    ),
  );
}

const graceMs = 300_000;

/** Accounts whose sales were not heard for longer than they should: what is sold there may be sold a second time. */
export async function unheardThatNeed(): Promise<Found[]> {
  // Longer than a busy moment takes.
  const now = new Date(Date.now() - graceMs);
  return (await unheardAccounts(now)).map(({ id, name }) =>
    page(
      `account-${id}-unheard`,
      `Sales on ${name} were not heard for a while`,
      'See whether it answers: what is sold there meanwhile stays listed elsewhere',
      `/marketplaces/${id}`,
      { count: 1 },
      true,
    ),
  );
}
