import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { handReasons, resultingStock } from '../core/item';
import { priorities } from '../core/sync';
import { type Executor, transaction } from '../db/client';
import { item, listing, movement } from '../db/schema';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { recordChanges } from './record-change';

export const changeStockSchema = z.discriminatedUnion('how', [
  z.object({
    how: z.literal('add'),
    units: z.number().int().min(-100_000).max(100_000),
    reason: z.enum(handReasons).default('added'),
    note: z.string().trim().max(200).optional(),
  }),
  z.object({
    how: z.literal('set'),
    units: z.number().int().min(0).max(1_000_000),
    note: z.string().trim().max(200).optional(),
  }),
]);

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
      wantedQuantity: sql`greatest(0, least(quantity_cap, ${quantity} - (select a.stock_reserve from market_account a where a.id = ${listing.accountId})))`,
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

/** Adds to the stock, or sets it: two different things, said apart. Returns the resulting number. */
export async function changeStock(
  actor: Actor,
  itemId: number,
  input: z.infer<typeof changeStockSchema>,
): Promise<{ quantity: number }> {
  const at = new Date();
  return transaction(async (tx) => {
    const [row] = await tx
      .select({ quantity: item.quantity, axes: item.axes })
      .from(item)
      .where(and(eq(item.id, itemId), eq(item.archived, false)))
      .for('update');
    if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
    if (row.axes.length)
      throw new NettingError('invalid', 'The stock of this item is counted by its variations', {
        field: 'quantity',
        mend: 'Write it in their table',
      });
    const { delta, result } = resultingStock(row.quantity, input);
    if (result < 0 && delta < 0) {
      throw new NettingError('invalid', `Only ${row.quantity} in stock, ${-delta} cannot be taken away`, {
        field: 'quantity',
      });
    }
    if (delta === 0) return { quantity: row.quantity };
    return {
      quantity: await moveStock(
        tx,
        actor,
        itemId,
        delta,
        { reason: input.how === 'add' ? input.reason : 'set', note: input.note || null },
        at,
      ),
    };
  });
}
