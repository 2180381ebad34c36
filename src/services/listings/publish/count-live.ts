import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { isThere } from '../../records/items/is-there';
import { knowSelection, selectionSchema, selectionWhere } from '../../records/items/selection';

export const countLiveSchema = z.object({ selection: selectionSchema }).strict();

export const liveCountsSchema = z.object({
  accounts: z.array(z.object({ accountId: z.number(), live: z.number() })),
});

/** How many of the chosen items stand on each account: what could be ended. */
export async function countLive({
  selection,
}: z.infer<typeof countLiveSchema>): Promise<z.infer<typeof liveCountsSchema>> {
  await knowSelection(selection);
  const rows = rowsOf<{ accountId: number; live: number }>(
    await database().execute(sql`
      select l.account_id as accountId, count(*) as live from listing l
      where (${isThere} or l.busy = 1) and l.item_id in (select i.id from item i where ${selectionWhere(selection)})
      group by l.account_id order by l.account_id`),
  );
  return { accounts: rows.map((one) => ({ accountId: Number(one.accountId), live: Number(one.live) })) };
}
