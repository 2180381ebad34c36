import { sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';

/**
 * Files of a drop that a run has put on items, and that are not there any more since it was taken back, are tied to their
 * items again, to be put on them another time.
 */
export async function giveBackDropped(db: Executor, runId: number, items: readonly number[]): Promise<void> {
  if (items.length)
    await db.execute(sql`update dropped_file f join run r on r.id = ${runId} and f.drop_id = json_value(r.detail, '$.drop')
      set f.state = 'here'
      where f.state = 'added' and f.item_id in ${items}
        and not exists (select 1 from item_photo p where p.item_id = f.item_id and p.hash = f.hash)`);
}
