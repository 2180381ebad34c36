import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { stages } from '../../../core/filter';
import { liveStates } from '../../../core/sync';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { today } from '../accounts/today';
import { isDrifted } from '../listings/is-drifted';

export const stageCountsSchema = z.record(z.enum(stages), z.number());
export type StageCounts = z.infer<typeof stageCountsSchema>;

/** How many items stand at each stage of the ribbon. One item may stand at several, as it is sold in several places. */
export async function stageCounts(): Promise<StageCounts> {
  const [row] = rowsOf<StageCounts>(
    await database().execute(sql`select
      (select count(*) from item where archived = 0 and (price is null or title = '')) as intake,
      (select count(distinct item_id) from listing where state = 'draft' and blocking > 0 and item_id not in (select id from item where archived <> 0)) as drafts,
      (select count(distinct item_id) from listing where state = 'draft' and blocking = 0 and item_id not in (select id from item where archived <> 0)) as ready,
      (select count(distinct item_id) from listing where state in ${liveStates}) as live,
      (select count(distinct item_id) from listing where state in ('changed', 'conflict')) as changed,
      (select count(distinct item_id) from listing where ${isDrifted}) as drift,
      (select count(*) from (
        select item_id from listing where state = 'attention' or (state in ${liveStates} and blocking > 0)
        union select l.item_id from offer o join listing l on l.id = o.listing_id where o.state = 'open'
        union select id from item where remind_on <= ${today()} and archived = 0) concerned) as attention,
      (select count(distinct item_id) from sale where item_id is not null)
        - (select count(*) from item i where i.archived <> 0 and exists (select 1 from sale s where s.item_id = i.id)) as sold`),
  );
  return row ?? { intake: 0, drafts: 0, ready: 0, live: 0, changed: 0, drift: 0, attention: 0, sold: 0 };
}
