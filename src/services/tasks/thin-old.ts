import { lt, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { entrySales } from '../../db/schema';
import { readSettings } from '../records/accounts/read-settings';
import { forgetDrops } from './forget-drops';
import { forgetFiles } from './forget-files';
import { forgetGatherings } from './forget-gatherings';
import { forgetPrints } from './forget-prints';
import { forgetTasks } from './forget-tasks';
import { forgetTries } from './forget-tries';

const changed = async (query: Promise<unknown>): Promise<number> => {
  const [result] = (await query) as [{ affectedRows: number }]; // mysql2's header of a change
  return result.affectedRows;
};

async function inPortions(step: () => Promise<number>, portion: number, isEnding: () => boolean): Promise<number> {
  let all = 0;
  while (!isEnding()) {
    const some = await step();
    all += some;
    if (some < portion) break;
  }
  return all;
}

/**
 * Deletes the oldest rows of a table whose numbers follow the time. The oldest row says whether there is anything to do:
 * nothing is searched.
 */
async function deleteOldest(
  table: 'change_record' | 'inbox',
  at: 'at' | 'received_at',
  before: Date,
  portion: number,
): Promise<number> {
  const db = database();
  const [oldest] = rowsOf<{ id: number; isOld: number }>(
    await db.execute(sql`select id, ${sql.raw(at)} < ${before} as isOld from ${sql.raw(table)} order by id limit 1`),
  );
  if (!oldest?.isOld) return 0;
  const { id } = oldest;
  // What still waits to be worked off stays, however old it is.
  const done = table === 'inbox' ? sql`and state <> 'waiting'` : sql``;
  return changed(
    db.execute(
      sql`delete from ${sql.raw(table)} where id >= ${id} and ${sql.raw(at)} < ${before} ${done} order by id limit ${portion}`,
    ),
  );
}

/** Finished jobs lose what exactly was sent and told; of a listing that may stand there it is still needed. */
const forgetRequests = (before: Date, portion: number): Promise<number> =>
  changed(
    database().execute(
      sql`update job j join (select d.id from job d join listing l on l.id = d.listing_id
            where d.finished_at < ${before} and (d.request is not null or d.story is not null) and l.remote <> 'maybe'
            order by d.finished_at limit ${portion}) old on old.id = j.id
          set j.request = null, j.story = null`,
    ),
  );

/** Jobs of long ago go as a whole, but for the last one of a listing, which says how it stands there. */
const forgetJobs = (before: Date, portion: number): Promise<number> =>
  changed(
    database().execute(
      sql`delete j from job j join (select d.id from job d where d.finished_at < ${before}
            and exists (select 1 from job n where n.listing_id = d.listing_id and n.id > d.id) order by d.finished_at limit ${portion}) old on old.id = j.id`,
    ),
  );

export type Thinned = { changes: number; requests: number; jobs: number; events: number };

/**
 * What is older than the settings say goes, in small portions. The ledger of stock and the sales stay for good.
 * @param portion rows that go in one short transaction, so that nobody waits for it
 */
export async function thinOld(now: Date, isEnding: () => boolean, portion = 1_000): Promise<Thinned> {
  const { historyDays, requestDays } = await readSettings();
  const ago = (days: number) => new Date(now.getTime() - days * 86_400_000);
  const [history, requested] = [ago(historyDays), ago(requestDays)];
  const all = (step: () => Promise<number>) => inPortions(step, portion, isEnding);
  const changes = await all(() => deleteOldest('change_record', 'at', history, portion));
  const requests = await all(() => forgetRequests(requested, portion));
  const jobs = await all(() => forgetJobs(history, portion));
  const events = await all(() => deleteOldest('inbox', 'received_at', requested, portion));
  await forgetTasks(now);
  await forgetFiles(now, isEnding);
  await forgetGatherings(now, isEnding);
  if (!isEnding()) await forgetDrops(now);
  await forgetPrints(now, isEnding);
  await forgetTries(now, history);
  // What nobody has asked for in a month is heard anew when it is.
  await database()
    .delete(entrySales)
    .where(lt(entrySales.readAt, new Date(now.getTime() - 30 * 86_400_000)));
  return { changes, requests, jobs, events };
}
