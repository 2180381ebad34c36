import { inArray, type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { priorities } from '../../../core/sync';
import { type Tx, transaction } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { listing, run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { isThere } from '../../records/items/is-there';
import { knowSelection, selectionSchema, selectionWhere } from '../../records/items/selection';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';
import { counted } from './counted';

export const endListingsSchema = z
  .object({ selection: selectionSchema, accounts: z.array(z.number().int().positive()).min(1).max(50) })
  .strict();

/** Ends what stands there, or is about to, of the listings that are meant. @param where over `l`, the listings */
export async function endWhere(
  tx: Tx,
  actor: Actor,
  where: SQL,
  detail: Record<string, unknown>,
): Promise<{ runId: number; queued: number }> {
  const rows = rowsOf<{ id: number }>(
    await tx.execute(sql`select l.id from listing l where ${where} and (${isThere} or l.busy = 1) for update`),
  );
  if (rows.length === 0) throw new NettingError('invalid', 'None of these is live there');
  const [{ insertId: runId }] = await tx.insert(run).values({
    kind: 'end',
    title: counted(rows.length, 'listing'),
    detail,
    itemCount: rows.length,
    byName: actor.name,
  });
  const ids = rows.map((row) => row.id);
  await tx.update(listing).set({ wanted: 'ended' }).where(inArray(listing.id, ids));
  await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.end, runId });
  return { runId, queued: ids.length };
}

/** Ends the live listings of these items on these accounts. */
export async function endListings(
  actor: Actor,
  { selection, accounts }: z.infer<typeof endListingsSchema>,
): Promise<{ runId: number; queued: number }> {
  await knowSelection(selection);
  const where = sql`l.account_id in ${accounts} and l.item_id in (select i.id from item i where ${selectionWhere(selection)})`;
  return transaction((tx) => endWhere(tx, actor, where, { accounts }));
}
