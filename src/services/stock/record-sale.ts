import { and, eq, sql } from 'drizzle-orm';
import { isDuplicate, transaction } from '../../db/client';
import { item, listing, previousRemoteId, sale } from '../../db/schema';
import type { RemoteOrder } from '../../markets';
import { systemActor } from '../access/actor';
import { enqueueVariations } from './enqueue-variations';
import { lowerVariation } from './lower-variation';
import { moveStock } from './move-stock';
import { soldVariation } from './sold-variation';

export type RecordedSale = { saleId: number; oversold: boolean } | { known: true };

/**
 * Records an order heard from a marketplace, once, whatever often it is heard: the sale, the movement, what every
 * other listing shall offer, and the jobs that end or lower them — in one transaction.
 */
export async function recordSale(accountId: number, order: RemoteOrder): Promise<RecordedSale> {
  try {
    return await transaction(async (tx) => {
      const at = new Date();
      const [found] = await tx
        .select()
        .from(listing)
        .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, order.remoteListingId)));
      // It may have been made anew since: the order names the number that it had then.
      const [previous] = found
        ? []
        : await tx
            .select({ itemId: listing.itemId, listingId: listing.id })
            .from(previousRemoteId)
            .innerJoin(listing, eq(listing.id, previousRemoteId.listingId))
            .where(
              and(eq(previousRemoteId.accountId, accountId), eq(previousRemoteId.remoteId, order.remoteListingId)),
            );
      const [bySku] =
        found || previous ? [] : await tx.select({ id: item.id }).from(item).where(eq(item.sku, order.sku));
      const itemId = found?.itemId ?? previous?.itemId ?? bySku?.id ?? null;
      const [stock] =
        itemId === null
          ? []
          : await tx
              .select({ quantity: item.quantity, cost: item.cost, axes: item.axes, variations: item.variations })
              .from(item)
              .where(eq(item.id, itemId))
              .for('update');
      const sold = stock && soldVariation(stock, order);
      const oversold = stock !== undefined && (sold?.quantity ?? stock.quantity) < order.quantity;
      const [{ insertId: saleId }] = await tx.insert(sale).values({
        accountId,
        orderId: order.orderId,
        itemId,
        listingId: found?.id ?? previous?.listingId ?? null,
        sku: order.sku,
        title: order.title,
        quantity: order.quantity,
        unitPrice: order.unitPrice,
        total: order.total,
        fee: order.fee,
        cost: stock?.cost ?? null,
        currency: order.currency,
        variation: order.variation?.values.join(', ').slice(0, 200) ?? null,
        buyerTown: order.buyerTown,
        oversold,
        soldAt: order.soldAt,
      });
      if (found) {
        // They lowered their own number, but perhaps before our last change of it and perhaps after: what they offer
        // now is not known. So the right number is sent there too, or the listing ended, instead of believing one.
        const forget = (column: string) => sql.raw(`json_remove(\`${column}\`, '$.quantity')`);
        await tx
          .update(listing)
          .set({ sentQuantity: null, sent: forget('sent'), base: forget('base') })
          .where(eq(listing.id, found.id));
      }
      if (itemId !== null) {
        if (stock?.axes.length) await lowerVariation(tx, itemId, stock, order, { actor: systemActor, at });
        await moveStock(
          tx,
          systemActor,
          itemId,
          -order.quantity,
          { reason: 'sold', saleId, variation: order.variation?.values.join(', ').slice(0, 200) },
          at,
        );
        // Every other marketplace shows the combination's own stock, too.
        if (stock?.axes.length) await enqueueVariations(tx, itemId);
      }
      return { saleId, oversold };
    });
  } catch (error) {
    if (isDuplicate(error)) return { known: true };
    throw error;
  }
}
