import { sql } from 'drizzle-orm';
import { priorities } from '../../core/sync';
import type { Tx } from '../../db/client';
import { enqueueJobs } from './enqueue-jobs';

/** Tells the marketplaces of a new stock: lowered or sold out first. Listings must be computed before. */
export const enqueueStock = (tx: Tx, itemId: number, quantity: number): Promise<number> =>
  enqueueJobs(tx, {
    where: sql`l.item_id = ${itemId} and (l.busy = 1 or (l.remote in ('live', 'review') and coalesce(l.wanted_quantity <> l.sent_quantity, 1)))`,
    priority: quantity < 1 ? priorities.end : priorities.quantity,
    runId: null,
  });
