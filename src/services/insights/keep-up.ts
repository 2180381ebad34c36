import { type SQL, sql } from 'drizzle-orm';
import { type Tx, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { numbersOf, writeLayers } from './write-layers';

/** A source of what is looked back at: records whose numbers follow the time. */
type Source = {
  name: string;
  /** The records that count, as `r`, by table. */
  from: SQL;
  /** So many numbers are read at once. */
  portion: number;
  take: (tx: Tx, after: number, upTo: number) => Promise<void>;
};

/**
 * A record may be kept after one with a greater number: whoever wrote it held its transaction open for a while. The last
 * records are read again for so long; reading them twice changes nothing.
 */
const lateSeconds = 90;

const within = (after: number, upTo: number) => sql`r.id > ${after} and r.id <= ${upTo}`;

const layersOfMoved = async (tx: Tx, ids: number[]) => {
  for (let at = 0; at < ids.length; at += 1_000) await writeLayers(tx, ids.slice(at, at + 1_000));
};

const sources: Source[] = [
  {
    name: 'movements',
    from: sql`movement`,
    portion: 4_000,
    take: async (tx, after, upTo) =>
      layersOfMoved(
        tx,
        numbersOf(
          await tx.execute(sql`select r.item_id as id from movement r left join item_milestone m on m.item_id = r.item_id
            where ${within(after, upTo)} group by r.item_id having max(r.id) > coalesce(max(m.moved_up_to), 0)`),
        ),
      ),
  },
  {
    name: 'changes',
    from: sql`change_record`,
    portion: 50_000,
    take: async (tx, after, upTo) => {
      await tx.execute(sql`insert into item_milestone (item_id, cut_at)
        select r.item_id, min(r.at) from change_record r
        where ${within(after, upTo)} and r.field = 'price' and r.why <> 'undo'
          and json_type(r.old_value) = 'INTEGER' and json_type(r.new_value) = 'INTEGER'
          and cast(r.new_value as signed) < cast(r.old_value as signed)
        group by r.item_id
        on duplicate key update cut_at = least(coalesce(cut_at, values(cut_at)), values(cut_at))`);
      await layersOfMoved(
        tx,
        numbersOf(
          await tx.execute(
            sql`select distinct r.item_id as id from change_record r where ${within(after, upTo)} and r.field = 'boughtOn'`,
          ),
        ),
      );
    },
  },
  {
    name: 'previous',
    from: sql`previous_remote_id`,
    portion: 20_000,
    take: async (tx, after, upTo) => {
      await tx.execute(sql`insert into item_milestone (item_id, renewed_at)
        select l.item_id, min(r.at) from previous_remote_id r join listing l on l.id = r.listing_id
        where ${within(after, upTo)} and r.why = 'renewed'
        group by l.item_id
        on duplicate key update renewed_at = least(coalesce(renewed_at, values(renewed_at)), values(renewed_at))`);
      await listed(
        tx,
        sql`select l.item_id, l.account_id, min(r.live_since) as at from previous_remote_id r join listing l on l.id = r.listing_id
          where ${within(after, upTo)} and r.live_since is not null group by l.item_id, l.account_id`,
      );
    },
  },
];

/** Keeps since when items are listed where, which of their accounts that was, and when they came onto a second one. */
async function listed(tx: Tx, found: SQL): Promise<void> {
  await tx.execute(sql`create or replace temporary table newly_listed
    (item_id bigint unsigned, account_id bigint unsigned, at datetime(3), primary key (item_id, account_id)) ${found}`);
  const [{ isAny = 0 } = {}] = rowsOf<{ isAny: number }>(
    await tx.execute(sql`select exists (select 1 from newly_listed) as isAny`),
  );
  if (!isAny) return;
  await tx.execute(sql`insert into first_listed (item_id, account_id, at) select item_id, account_id, at from newly_listed
    on duplicate key update at = least(first_listed.at, values(at))`);
  const among = sql`(select distinct item_id from newly_listed)`;
  await tx.execute(sql`update first_listed f join (
      select item_id, account_id, row_number() over (partition by item_id order by at, account_id) as nth
      from first_listed where item_id in ${among}
    ) n on n.item_id = f.item_id and n.account_id = f.account_id set f.nth = n.nth`);
  await tx.execute(sql`insert into item_milestone (item_id, listed_at, crossed_at)
    select item_id, min(if(nth = 1, at, null)), min(if(nth = 2, at, null)) from first_listed where item_id in ${among} group by item_id
    on duplicate key update listed_at = values(listed_at), crossed_at = values(crossed_at), kept_at = current_timestamp(3)`);
}

/**
 * Listings that have gone live since the last look, and those that were recorded since then as live for long, by their numbers.
 * @param isAll all of them: what was recorded anew for a listing that was known before is found so
 */
async function keepListed(tx: Tx, isAll: boolean): Promise<void> {
  const after = isAll ? 0 : await reached(tx, 'listed');
  const known = isAll ? 0 : await reached(tx, 'listings');
  const [{ now = 0, last = 0 } = {}] = rowsOf<{ now: number; last: number }>(
    await tx.execute(
      sql`select cast(unix_timestamp(utc_timestamp(3)) * 1000 as signed) as now, (select coalesce(max(id), 0) from listing) as last`,
    ),
  );
  const accounts = numbersOf(await tx.execute(sql`select id from account`));
  if (accounts.length === 0) return;
  // The index leads by account: a range of each.
  await listed(
    tx,
    sql`select item_id, account_id, min(at) as at from (
        select l.item_id, l.account_id, l.live_since as at from listing l force index (listing_live_since)
          where l.account_id in ${accounts} and l.live_since >= from_unixtime(${after / 1_000})
        union all select l.item_id, l.account_id, l.live_since from listing l where l.id > ${known} and l.live_since is not null
      ) found group by item_id, account_id`,
  );
  await keepReached(tx, 'listed', Number(now) - lateSeconds * 1_000);
  // A listing that is being recorded just now may have a smaller number: it goes live later, which is seen.
  await keepReached(tx, 'listings', Number(last));
}

/** How far a source was read; held, so that nobody reads it at the same time. */
async function reached(tx: Tx, source: string): Promise<number> {
  await tx.execute(sql`insert ignore into insight_cursor (source, up_to) values (${source}, 0)`);
  const [row] = rowsOf<{ upTo: number }>(
    await tx.execute(sql`select up_to as upTo from insight_cursor where source = ${source} for update`),
  );
  return Number(row?.upTo ?? 0);
}

const keepReached = (tx: Tx, source: string, upTo: number) =>
  tx.execute(sql`update insight_cursor set up_to = greatest(up_to, ${upTo}) where source = ${source}`);

/**
 * Reads the next portion of a source.
 * @param from where this reading of the source has come to; null at its beginning
 * @returns where it has come to now; null when all was read
 */
const keepPortion = ({ name, from: records, portion, take }: Source, from: number | null): Promise<number | null> =>
  transaction(async (tx) => {
    const kept = await reached(tx, name);
    const after = from ?? kept;
    const [{ last = 0 } = {}] = rowsOf<{ last: number }>(
      await tx.execute(sql`select coalesce(max(id), 0) as last from ${records}`),
    );
    const upTo = Math.min(Number(last), after + portion);
    if (upTo <= after) return null;
    await take(tx, after, upTo);
    const [{ settled = after } = {}] = rowsOf<{ settled: number }>(
      await tx.execute(
        sql`select coalesce(max(r.id), 0) as settled from ${records} r where ${within(after, upTo)} and r.at < utc_timestamp(3) - interval ${lateSeconds} second`,
      ),
    );
    await keepReached(tx, name, Number(settled));
    return upTo < Number(last) ? upTo : null;
  });

/**
 * Brings what is looked back at up to now: stock by layers, first price cuts, renewals, places. Everything is made of records
 * that are kept anyway (the ledger, the history, the listings' numbers), so the writers have nothing to do with it.
 * @param forMs it stops after so long; the next one goes on
 * @param isAll listings are all looked through, once in a while
 * @returns whether all was read
 */
export async function keepUp(forMs = 2_000, isAll = false): Promise<boolean> {
  const end = Date.now() + forMs;
  for (const source of sources) {
    let at = await keepPortion(source, null);
    for (; at !== null; at = await keepPortion(source, at)) if (Date.now() > end) return false;
  }
  await transaction((tx) => keepListed(tx, isAll));
  return true;
}
