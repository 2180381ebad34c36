import { and, eq, sql } from 'drizzle-orm';
import { isMadeToOrder } from '../../core/artwork';
import { combinationWords, unitsAt } from '../../core/item';
import { type Content, isFromWarehouse, type Narrowing, type Overrides, readNarrowing } from '../../core/listing';
import { carrierField } from '../../core/rules';
import { priorities } from '../../core/sync';
import { database, type Executor, isDuplicate, transaction } from '../../db/client';
import { dispatch, item, listing, previousRemoteId, sale } from '../../db/schema';
import type { RemoteOrder } from '../../markets';
import { systemActor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { rateTo } from '../records/accounts/latest-rates';
import { loadAccounts } from '../records/accounts/load-accounts';
import { holdItems } from '../records/items/hold-items';
import { enqueueJobs, stockFields } from '../records/listings/enqueue-jobs';
import { dividedFee } from './divided-fee';
import { parcelCosts, sendingFee, withSent } from './parcel-costs';
import { soldVariation } from './sold-variation';
import { unitsChange, unitsChangeThere } from './units-change';

const unknownThing = { cost: null, weightGrams: null, lengthMm: null, widthMm: null, heightMm: null };

export type RecordedSale = { saleId: number; oversold: boolean } | { known: true };

type Found = {
  itemId: number | null;
  listingId: number | null;
  isPresent: boolean;
  narrowing: Narrowing;
  /** What it held there, as far as known. */
  sent: Content;
};

const asFound = (
  {
    itemId,
    listingId,
    overrides,
    sent,
  }: { itemId: number; listingId: number; overrides: Overrides; sent: Content | null },
  isPresent: boolean,
): Found => ({
  itemId,
  listingId,
  isPresent,
  narrowing: readNarrowing(overrides.variations),
  // The carrier is ours alone: what is said of it now was never sent.
  sent: { ...sent, ...(overrides[carrierField] ? { [carrierField]: overrides[carrierField] } : {}) },
});

/** What was sold: by the number that the listing has there, had there, or else by our stock number. */
async function soldThing(db: Executor, accountId: number, order: RemoteOrder): Promise<Found> {
  const columns = { itemId: listing.itemId, listingId: listing.id, overrides: listing.overrides, sent: listing.sent };
  const [present] = await db
    .select(columns)
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, order.remoteListingId)));
  if (present) return asFound(present, true);
  // It may have been made anew since: the order names the number that it had then.
  const [previous] = await db
    .select(columns)
    .from(previousRemoteId)
    .innerJoin(listing, eq(listing.id, previousRemoteId.listingId))
    .where(and(eq(previousRemoteId.accountId, accountId), eq(previousRemoteId.remoteId, order.remoteListingId)));
  if (previous) return asFound(previous, false);
  const [bySku] = await db.select({ id: item.id }).from(item).where(eq(item.sku, order.sku));
  return { itemId: bySku?.id ?? null, listingId: null, isPresent: false, narrowing: {}, sent: {} };
}

/** What has become of one that is recorded already, in their words. */
async function noteState(accountId: number, { orderId, line, rawState }: RemoteOrder): Promise<void> {
  await database()
    .update(sale)
    .set({ rawState })
    .where(and(eq(sale.accountId, accountId), eq(sale.orderId, orderId), eq(sale.line, line)));
}

/**
 * Records a line of an order heard from a marketplace, once, whatever often it is heard: the sale, the movement, what every
 * other listing shall offer, and the jobs that end or lower them — in one transaction.
 */
export async function recordSale(accountId: number, order: RemoteOrder): Promise<RecordedSale> {
  // Read before anything is held: a sale waits for as little as can be.
  const [account] = await loadAccounts(database(), [accountId]);
  const serves = account?.stock?.servedBy;
  const [serving] = serves ? await loadAccounts(database(), [serves]) : [];
  try {
    return await transaction(async (tx) => {
      const at = new Date();
      const found = await soldThing(tx, accountId, order);
      const [stock] = found.itemId === null ? [] : (await holdItems(tx, [found.itemId])).items;
      const sold = stock?.axes.length ? soldVariation(stock, order, found.narrowing) : undefined;
      // What their warehouse sends is taken from there, whatever is here.
      const isTheirs = account !== undefined && isFromWarehouse(account.compiled.rules, found.sent);
      const here = stock?.axes.length ? (sold?.quantity ?? 0) : (stock?.quantity ?? 0);
      const there = isTheirs && stock ? unitsAt(stock.elsewhere, 'there', accountId) : here;
      // What is here is sold first; what is lacking is sent by the warehouse that serves the account.
      const servedBy = isTheirs ? null : (account?.stock?.servedBy ?? null);
      const lying = servedBy === null || !stock ? 0 : Math.max(0, unitsAt(stock.elsewhere, 'there', servedBy));
      const sent = stock?.axes.length ? 0 : Math.min(lying, Math.max(0, order.quantity - Math.max(0, here)));
      const parcel = isTheirs
        ? { postage: 0, packing: 0 }
        : withSent(parcelCosts(account, order, found.sent, stock ?? unknownThing), order, {
            sent,
            fee: serving && stock ? sendingFee(serving, stock) : 0,
          });
      const oversold = stock !== undefined && there + sent < order.quantity;
      const [{ insertId: saleId }] = await tx.insert(sale).values({
        accountId,
        orderId: order.orderId,
        line: order.line,
        rawState: order.rawState,
        rateMillionths: (await rateTo(tx, order.currency))?.millionths ?? null,
        itemId: found.itemId,
        listingId: found.listingId,
        sku: order.sku,
        title: order.title,
        quantity: order.quantity,
        unitPrice: order.unitPrice,
        total: order.total,
        fee: order.fee,
        ...dividedFee(account, order, found.sent, stock ?? unknownThing),
        buyerPostage: order.buyerPostage,
        discount: order.discount,
        personal: order.personal,
        collected: order.collected,
        ...parcel,
        cost: stock?.cost ?? null,
        currency: order.currency,
        combination: sold?.key ?? null,
        variation: sold
          ? combinationWords(sold.values)
          : order.variation
            ? combinationWords(order.variation.values)
            : null,
        buyerTown: order.buyerTown,
        oversold,
        unassigned: !stock || (stock.axes.length > 0 && !sold),
        soldAt: order.soldAt,
      });
      if (sent && servedBy !== null && stock)
        await tx.insert(dispatch).values({
          saleId,
          accountId: servedBy,
          itemId: stock.id,
          sku: stock.sku,
          quantity: sent,
          town: order.buyerTown,
          state: 'due',
          at,
          nextAt: at,
        });
      if (found.isPresent && found.listingId !== null) {
        // They lowered their own number, but perhaps before our last change of it and perhaps after: what they offer
        // now is not known. So the right number is sent there too, or the listing ended, instead of believing one.
        const forget = (column: string) => sql.raw(`json_remove(\`${column}\`, '$.quantity')`);
        await tx
          .update(listing)
          .set({ sentQuantity: null, sent: forget('sent'), base: forget('base') })
          .where(eq(listing.id, found.listingId));
      }
      if (stock)
        await commitItems(
          tx,
          [stock.id],
          ({ items: [held] }) => {
            if (!held) return [];
            if (isTheirs) return unitsChangeThere(held, accountId, -order.quantity);
            return [
              ...unitsChange(held, sold, sent - order.quantity),
              ...(sent && servedBy !== null ? unitsChangeThere(held, servedBy, -sent) : []),
            ];
          },
          {
            actor: systemActor,
            why: 'sale',
            at,
            send: 'stock',
            stock: { reason: 'sold', saleId, mayGoBelowZero: true },
          },
        );
      // What is made when it is bought does not become less, and they offer less of it now.
      if (stock && isMadeToOrder(stock) && found.isPresent)
        await enqueueJobs(tx, {
          where: sql`l.id = ${found.listingId} and l.wanted = 'live'`,
          priority: priorities.quantity,
          runId: null,
          only: stockFields,
        });
      return { saleId, oversold };
    });
  } catch (error) {
    if (isDuplicate(error)) {
      await noteState(accountId, order);
      return { known: true };
    }
    throw error;
  }
}
