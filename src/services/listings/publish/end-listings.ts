import { inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { priorities } from '../../../core/sync';
import { transaction } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { listing, run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { isThere } from '../../records/items/is-there';
import { selectionSchema, selectionWhere } from '../../records/items/selection';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';
import { counted } from './counted';

export const endListingsSchema = z
  .object({ selection: selectionSchema, accounts: z.array(z.number().int().positive()).min(1).max(50) })
  .strict();

/** Ends the live listings of these items on these accounts. */
export async function endListings(
  actor: Actor,
  input: z.infer<typeof endListingsSchema>,
): Promise<{ runId: number; queued: number }> {
  return transaction(async (tx) => {
    const where = sql`l.account_id in ${input.accounts} and l.item_id in (select i.id from item i where ${selectionWhere(input.selection)})`;
    const rows = rowsOf<{ id: number }>(
      await tx.execute(sql`select l.id from listing l where ${where} and (${isThere} or l.busy = 1) for update`),
    );
    if (rows.length === 0) throw new NettingError('invalid', 'None of these is live there');
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'end',
      title: counted(rows.length, 'listing'),
      detail: { accounts: input.accounts },
      itemCount: rows.length,
      byName: actor.name,
    });
    const ids = rows.map((row) => row.id);
    await tx.update(listing).set({ wanted: 'ended' }).where(inArray(listing.id, ids));
    await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.end, runId });
    return { runId, queued: ids.length };
  });
}
