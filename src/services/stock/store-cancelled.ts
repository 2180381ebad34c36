import { and, eq, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { combinationWords, type Item } from '../../core/item';
import { priorities } from '../../core/sync';
import { type Tx, transaction } from '../../db/client';
import { account, listing, sale } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit-items';
import { archiveRemoteIds } from '../records/archive-remote-ids';
import { enqueueJobs } from '../records/enqueue-jobs';
import { refreshListings } from '../records/refresh-listings';
import { unitsChange } from './units-change';

type SaleRow = typeof sale.$inferSelect;

/** The combination that was sold: by its key, or for sales of before by what it was called. */
const soldOf = (item: Item, row: SaleRow) =>
  item.variations.find((one) =>
    row.combination ? one.key === row.combination : combinationWords(one.values) === row.variation,
  );

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
    await tx
      .update(sale)
      .set({ state: 'cancelled', cancelledAt: at, oversold: false, unassigned: false })
      .where(eq(sale.id, saleId));
    if (row.itemId === null) return { quantity: null, again: 0 };
    const id = row.itemId;
    let before = 0;
    const { items } = await commitItems(
      tx,
      [id],
      ({ items: [item] }) => {
        if (!item) return [];
        before = item.quantity;
        return unitsChange(item, item.axes.length ? soldOf(item, row) : undefined, row.quantity);
      },
      {
        actor,
        why: 'sale',
        at,
        send: 'stock',
        stock: { reason: 'cancelled', saleId, mayGoBelowZero: true },
      },
    );
    const now = items[0]?.item;
    const wasSoldOut = now !== undefined && before < 1 && now.quantity > 0;
    return { quantity: now?.quantity ?? null, again: wasSoldOut ? await listAgain(tx, id) : 0 };
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
