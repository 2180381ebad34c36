import { inArray, sql } from 'drizzle-orm';
import { priorities } from '../../../core/sync';
import { transaction } from '../../../db/client';
import { listing, run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';

/** Sends what differs from what is live, of these listings. */
export async function sendChanged(actor: Actor, ids: number[], title: string): Promise<number> {
  if (ids.length === 0) return 0;
  return transaction(async (tx) => {
    const where = sql`l.id in ${ids} and l.remote = 'live' and l.dirty = 1 and l.blocking = 0`;
    const changed = await tx
      .select({ id: listing.id })
      .from(listing)
      .where(
        sql`${inArray(listing.id, ids)} and ${listing.remote} = 'live' and ${listing.dirty} = 1 and ${listing.blocking} = 0`,
      );
    if (changed.length === 0) return 0;
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'publish',
      title: title.slice(0, 200),
      detail: {},
      itemCount: changed.length,
      byName: actor.name,
    });
    await enqueueJobs(tx, { where, priority: priorities.content, runId });
    return changed.length;
  });
}
