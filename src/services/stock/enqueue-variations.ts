import { sql } from 'drizzle-orm';
import { priorities } from '../../core/sync';
import type { Tx } from '../../db/client';
import { enqueueJobs } from '../records/enqueue-jobs';
import { refreshListings } from '../records/refresh-listings';

/** Every marketplace shows the combination's own stock: they are told, as urgently as of a stock. */
export async function enqueueVariations(tx: Tx, itemId: number): Promise<void> {
  await refreshListings(tx, [itemId]);
  await enqueueJobs(tx, {
    where: sql`l.item_id = ${itemId} and l.remote in ('live', 'review') and l.dirty = 1`,
    priority: priorities.quantity,
    runId: null,
  });
}
