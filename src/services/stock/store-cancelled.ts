import { and, eq, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { priorities } from '../../core/sync';
import { type Tx, transaction } from '../../db/client';
import { account, item, listing, sale } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recordChanges } from '../changes/record-changes';
import { archiveRemoteIds } from '../records/archive-remote-ids';
import { enqueueJobs } from '../records/enqueue-jobs';
import { refreshListings } from '../records/refresh-listings';
import { enqueueVariations } from './enqueue-variations';
import { moveStock } from './move-stock';

type SaleRow = typeof sale.$inferSelect;

/**
 * The units of a cancelled sale go back to the combination that was sold.
 * @returns whether the item has combinations
 */
async function raiseVariation(tx: Tx, row: SaleRow, at: Date, actor: Actor): Promise<boolean> {
  if (!row.itemId || !row.variation) return false;
  const [thing] = await tx.select().from(item).where(eq(item.id, row.itemId));
  if (!thing?.axes.length) return false;
  const raised = thing.variations.map((one) =>
    one.values.join(', ').slice(0, 200) === row.variation ? { ...one, quantity: one.quantity + row.quantity } : one,
  );
  await tx.update(item).set({ variations: raised }).where(eq(item.id, row.itemId));
  await recordChanges(tx, { actor, why: 'sale', at }, [
    { itemId: thing.id, itemVersion: thing.version + 1, field: 'variations', from: thing.variations, to: raised },
  ]);
  return true;
}

/**
 * Stores that an order is off, once: what was sold is in stock again, every listing offers it again, and where the
 * account says so a listing that ended by being sold out is made again.
 */
export async function storeCancelled(
  actor: Actor,
  saleId: number,
): Promise<{ quantity: number | null; again: number }> {
  const at = new Date();
  return transaction(async (tx) => {
    const [row] = await tx.select().from(sale).where(eq(sale.id, saleId)).for('update');
    if (!row) throw new NettingError('not-found', `There is no sale ${saleId}`);
    if (row.state === 'cancelled') return { quantity: null, again: 0 };
    await tx.update(sale).set({ state: 'cancelled', cancelledAt: at, oversold: false }).where(eq(sale.id, saleId));
    if (row.itemId === null) return { quantity: null, again: 0 };
    const varied = await raiseVariation(tx, row, at, actor);
    const quantity = await moveStock(
      tx,
      actor,
      row.itemId,
      row.quantity,
      { reason: 'cancelled', saleId, variation: row.variation },
      at,
    );
    if (varied) await enqueueVariations(tx, row.itemId);
    const wasSoldOut = quantity > 0 && quantity - row.quantity < 1;
    return { quantity, again: wasSoldOut ? await listAgain(tx, row.itemId) : 0 };
  });
}

/** Listings that ended because there was nothing left are made again, where their account wants that. */
async function listAgain(tx: Tx, itemId: number): Promise<number> {
  const rows = await tx
    .select({ id: listing.id })
    .from(listing)
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(
      and(
        eq(listing.itemId, itemId),
        eq(listing.wanted, 'live'),
        inArray(listing.remote, ['ended', 'sold']),
        eq(account.relistCancelled, true),
      ),
    );
  if (rows.length === 0) return 0;
  const ids = rows.map((row) => row.id);
  await archiveRemoteIds(tx, sql`l.id in ${ids}`, 'made-again');
  await tx.update(listing).set({ remote: 'none', remoteId: null, remoteUrl: null }).where(inArray(listing.id, ids));
  await refreshListings(tx, [itemId]);
  await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId: null });
  return ids.length;
}
