import { eq, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { priorities } from '../../core/sync';
import type { Executor } from '../../db/client';
import { item, listing, movement } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recordChanges } from '../changes/record-changes';
import { enqueueJobs } from '../records/enqueue-jobs';

type NewMovement = Pick<typeof movement.$inferInsert, 'reason' | 'saleId' | 'runId' | 'variation' | 'note'>;

/**
 * Moves stock of one item in the caller's transaction: the ledger, the sum, what every listing shall offer, and the
 * jobs that tell the marketplaces, urgent ones first. May go below zero when more was sold than was there.
 */
export async function moveStock(
  db: Executor,
  actor: Actor,
  itemId: number,
  delta: number,
  why: NewMovement,
  at: Date,
): Promise<number> {
  const [row] = await db
    .select({ quantity: item.quantity, version: item.version })
    .from(item)
    .where(eq(item.id, itemId))
    .for('update');
  if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
  const quantity = row.quantity + delta;
  await db.insert(movement).values({ itemId, delta, at, byName: actor.name, ...why });
  await db
    .update(item)
    .set({ quantity, version: row.version + 1, updatedAt: at })
    .where(eq(item.id, itemId));
  await recordChanges(
    db,
    {
      actor,
      why: why.reason === 'sold' || why.reason === 'cancelled' ? 'sale' : 'typing',
      at,
      runId: why.runId ?? undefined,
    },
    [{ itemId, itemVersion: row.version + 1, field: 'quantity', from: row.quantity, to: quantity }],
  );
  await db
    .update(listing)
    .set({
      wantedQuantity: sql`greatest(0, least(quantity_cap, ${quantity} - (select a.stock_reserve from account a where a.id = ${listing.accountId})))`,
    })
    .where(eq(listing.itemId, itemId));
  const concerned = sql`l.item_id = ${itemId} and (l.busy = 1 or (l.remote in ('live', 'review') and coalesce(l.wanted_quantity <> l.sent_quantity, 1)))`;
  await enqueueJobs(db, {
    where: concerned,
    priority: quantity < 1 ? priorities.end : priorities.quantity,
    runId: null,
  });
  return quantity;
}
