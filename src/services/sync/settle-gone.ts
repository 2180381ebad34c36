import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { priorities } from '../../core/sync';
import { transaction } from '../../db/client';
import { item, listing, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { enqueueJobs } from '../records/listings/enqueue-jobs';
import { forgetRemoteIds } from '../records/listings/forget-remote-ids';
import { refreshListings } from '../records/listings/refresh-listings';
import { isGone } from './find-gone';

export const settleGoneSchema = z
  .object({ listings: z.array(z.number().int()).min(1).max(2_000), how: z.enum(['end', 'make-again']) })
  .strict();

/** What is gone there ends here as well, or is made again under a new number. */
export async function settleGone(actor: Actor, input: z.infer<typeof settleGoneSchema>): Promise<{ settled: number }> {
  return transaction(async (tx) => {
    const rows = await tx
      .select({ listing })
      .from(listing)
      .innerJoin(item, eq(item.id, listing.itemId))
      .where(and(isGone, inArray(listing.id, input.listings)))
      .for('update');
    if (rows.length === 0) throw new NettingError('too-late', 'This has been settled already');
    const ids = rows.map((row) => row.listing.id);
    if (input.how === 'end') {
      await tx.update(listing).set({ wanted: 'ended' }).where(inArray(listing.id, ids));
      return { settled: ids.length };
    }
    await forgetRemoteIds(tx, sql`l.id in ${ids}`);
    await refreshListings(tx, [...new Set(rows.map((row) => row.listing.itemId))]);
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'settle',
      title: `${ids.length} made again`,
      detail: {},
      itemCount: ids.length,
      byName: actor.name,
    });
    await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId });
    return { settled: ids.length };
  });
}
