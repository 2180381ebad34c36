import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { convert } from '../../src/core/measure';
import { feeKinds, feesOf } from '../../src/core/price';
import type { Db } from '../../src/db/client';
import { batch, changeRecord, item, listing, movement, previousRemoteId, sale, usedSku } from '../../src/db/schema';
import type { Actor } from '../../src/services/access/actor';
import { createBatch } from '../../src/services/intake/save-batch';
import { type LoadedAccount, loadAccounts } from '../../src/services/records/accounts/load-accounts';
import { type Chance, chanceOf } from './chance';
import { type Piece, pastDays, planPieces, planStock } from './plan';
import { type PastOrder, tellPast } from './tell-past';

const dayMs = 86_400_000;
const towns = ['Marrowby', 'Osterlund', 'Vell', 'Tarnhaven', 'Lindmoor', 'Eskerby', 'Port Solling'];
const suppliers = [
  'Estate of H. Sandor',
  'Harbour auctions',
  'Lindmoor flea market',
  'Tarnhaven camera fair',
  'Walk-in',
];
/** The largest first: sales fall on them in this order. */
const order = ['hallowick', 'pippet', 'shopfront', 'oakhand', 'selasar', 'swishel', 'lanesend', 'glintfeed'];
const pieceCount = 820;

type Shop = LoadedAccount;
type Rows = {
  sales: (typeof sale.$inferInsert)[];
  movements: (typeof movement.$inferInsert)[];
  changes: (typeof changeRecord.$inferInsert)[];
  listings: (typeof listing.$inferInsert)[];
  previous: (typeof previousRemoteId.$inferInsert)[];
  told: PastOrder[];
};

async function insertAll<T>(rows: readonly T[], insert: (some: T[]) => Promise<unknown>): Promise<void> {
  for (let at = 0; at < rows.length; at += 500) await insert(rows.slice(at, at + 500));
}

/** What an exchange rate was on a day: it wanders about today's. */
const rateOn = (millionths: number, at: Date): number =>
  Math.round(
    millionths * (1 + 0.035 * Math.sin(at.getTime() / dayMs / 47) + 0.012 * Math.sin(at.getTime() / dayMs / 11)),
  );

/** A line of an order as it was heard, with its fees divided as they are when it is heard today. */
function soldLine(
  shop: Shop,
  thing: { id: number; sku: string; title: string; cost: number | null; grams: number },
  sold: { price: number; units: number; at: Date },
  more: { orderId: string; listingId: number | null; id: number; town: string },
): typeof sale.$inferInsert {
  const { currency, fees } = shop.compiled.rules;
  const millionths = shop.rate ? rateOn(shop.rate.millionths, sold.at) : null;
  const there = (amount: number) => (shop.rate && millionths ? convert(amount, { ...shop.rate, millionths }) : amount);
  const unitPrice = there(sold.price);
  const total = unitPrice * sold.units;
  const parcel = thing.grams > 600 ? 590 : thing.grams > 200 ? 450 : 340;
  const sellerPays = shop.row.market === 'pippet' || shop.row.market === 'swishel';
  const buyerPostage = sellerPays ? 0 : there(parcel);
  const reckoned = feesOf(fees, { total: total + buyerPostage, categoryId: null, liveCount: 0 });
  const fee = reckoned.commission + reckoned.payment;
  const kinds = feeKinds(fee, { ...reckoned, handling: 0 });
  return {
    id: more.id,
    accountId: shop.id,
    orderId: more.orderId,
    itemId: thing.id,
    listingId: more.listingId,
    sku: thing.sku,
    title: thing.title,
    quantity: sold.units,
    unitPrice,
    total,
    fee,
    feePayment: kinds.payment,
    feeHandling: kinds.handling,
    feeOther: kinds.other,
    buyerPostage,
    postage: parcel,
    packing: thing.grams > 600 ? 110 : 45,
    cost: thing.cost,
    currency,
    rateMillionths: millionths,
    buyerTown: more.town,
    soldAt: sold.at,
  };
}

/** Purchases come in piles: the batch of the month in which something was bought. */
async function pastBatches(db: Db, actor: Actor, now: Date): Promise<{ code: string; at: Date; supplier: string }[]> {
  const found: { code: string; at: Date; supplier: string }[] = [];
  for (let back = pastDays, at = 0; back > 20; back -= 45, at++) {
    const day = new Date(now.getTime() - back * dayMs);
    const supplier = suppliers[at % suppliers.length] ?? '';
    const { id } = await createBatch(actor, {
      name: `${supplier}, ${day.toLocaleString('en', { month: 'long', year: 'numeric', timeZone: 'UTC' })}`,
      supplier,
      boughtOn: day.toISOString().slice(0, 10),
    });
    await db.update(batch).set({ state: 'closed', createdAt: day }).where(eq(batch.id, id));
    found.push({ code: `B${id}`, at: day, supplier });
  }
  return found;
}

/** The pieces that came and went: items that are put away, with their places, cuts, renewals, orders and ledger. */
async function writePieces(db: Db, actor: Actor, shops: Shop[], rows: Rows, chance: Chance, now: Date): Promise<void> {
  const models = await db
    .select()
    .from(item)
    .where(
      and(
        eq(item.quantity, 1),
        eq(item.isVaried, false),
        gt(item.photoCount, 0),
        gt(item.price, 0),
        sql`${item.category} regexp '^(cameras|lenses|meters|bags|books)'`,
      ),
    )
    .orderBy(item.id);
  if (models.length === 0) return;
  const batches = await pastBatches(db, actor, now);
  const [{ most = 0 } = {}] = await db
    .select({ most: sql<number>`coalesce(max(${item.id}), 0)`.mapWith(Number) })
    .from(item);
  const [{ mostListed = 0 } = {}] = await db
    .select({ mostListed: sql<number>`coalesce(max(${listing.id}), 0)`.mapWith(Number) })
    .from(listing);
  let listingId = mostListed + 100;
  const pieces = planPieces(pieceCount, models, shops.length, chance, now);
  const items: (typeof item.$inferInsert)[] = [];
  pieces.forEach((piece, at) => {
    const model = models[piece.model];
    if (!model) return;
    const id = most + 100 + at;
    const sku = `PA-${String(at + 1).padStart(4, '0')}`;
    const from = batches.filter((one) => one.at <= piece.boughtAt).at(-1);
    const { isVaried: _varied, ...fields } = model;
    items.push({
      ...fields,
      id,
      sku,
      version: 1,
      madeBy: null,
      barcode: '',
      // Their photos went when they did.
      mainPhoto: null,
      photoCount: 0,
      price: piece.price,
      cost: piece.cost,
      quantity: 0,
      supplier: from?.supplier ?? 'Walk-in',
      batch: from?.code ?? '',
      boughtOn: piece.boughtAt.toISOString().slice(0, 10),
      standing: 'archived',
      location: '',
      createdAt: piece.boughtAt,
      updatedAt: piece.soldAt,
    });
    const thing = { id, sku, title: model.title, cost: piece.cost, grams: model.weightGrams ?? 500 };
    const sold = piece.listedAt.map((place, index) => {
      const shop = shops[place.account];
      listingId += 1;
      if (!shop) return null;
      const renewals = index === 0 ? piece.renewedAt.filter((one) => one > place.at) : [];
      const isSold = index === piece.soldIn;
      const isListed = place.at < piece.soldAt;
      if (!isListed) return null;
      const remoteId = `P${sku}-${index + 1}`;
      const since = renewals.at(-1) ?? place.at;
      rows.listings.push({
        id: listingId,
        itemId: id,
        accountId: shop.id,
        overrides: {},
        wanted: 'ended',
        remote: isSold ? 'sold' : 'ended',
        chosen: true,
        remoteId,
        liveSince: since,
        sentAt: since,
        seenAt: piece.soldAt,
        timesMade: 1 + renewals.length,
      });
      renewals.forEach((renewed, nth) => {
        const liveSince = renewals[nth - 1] ?? place.at;
        rows.previous.push({
          listingId,
          accountId: shop.id,
          remoteId: `${remoteId}-${nth}`,
          liveSince,
          why: 'renewed',
          at: renewed,
        });
      });
      return isSold ? { shop, listingId, remoteId } : null;
    });
    const place = sold.find((one) => one !== null);
    rows.movements.push({ itemId: id, delta: 1, reason: 'opening', at: piece.boughtAt, byName: actor.name });
    for (const cut of piece.cuts)
      rows.changes.push({
        itemId: id,
        itemVersion: 1,
        field: 'price',
        from: cut.from,
        to: cut.to,
        why: 'bulk',
        byName: actor.name,
        at: cut.at,
      });
    if (place) sellPiece(rows, thing, piece, place, chance);
  });
  await insertAll(items, (some) => db.insert(item).values(some));
  await insertAll(items, (some) => db.insert(usedSku).values(some.map((one) => ({ sku: one.sku, at: now }))));
}

/** Its order; one that was called off before it, too. */
function sellPiece(
  rows: Rows,
  thing: { id: number; sku: string; title: string; cost: number | null; grams: number },
  piece: Piece,
  place: { shop: Shop; listingId: number; remoteId: string },
  chance: Chance,
): void {
  const add = (at: Date, cancelledAt: Date | null) => {
    const id = rows.sales.length + 1;
    const line = soldLine(
      place.shop,
      thing,
      { price: piece.price, units: 1, at },
      { id, orderId: `P${String(id).padStart(5, '0')}`, listingId: place.listingId, town: chance.of(towns) },
    );
    rows.sales.push(cancelledAt ? { ...line, state: 'cancelled', cancelledAt } : line);
    rows.told.push(orderOf(place.shop, line, place.remoteId, cancelledAt));
    rows.movements.push({
      itemId: thing.id,
      delta: -1,
      reason: 'sold',
      accountId: place.shop.id,
      saleId: id,
      at,
      byName: 'Netting',
    });
    if (cancelledAt)
      rows.movements.push({
        itemId: thing.id,
        delta: 1,
        reason: 'cancelled',
        accountId: place.shop.id,
        saleId: id,
        at: cancelledAt,
        byName: 'Netting',
      });
  };
  if (piece.cancelledAt) add(new Date(piece.cancelledAt.getTime() - 1.5 * dayMs), piece.cancelledAt);
  add(piece.soldAt, null);
}

const orderOf = (
  shop: Shop,
  line: typeof sale.$inferInsert,
  remoteListing: string,
  cancelledAt: Date | null,
): PastOrder => ({
  market: shop.row.market,
  seller: shop.row.remoteName,
  id: line.orderId,
  listing: remoteListing,
  reference: line.sku,
  title: line.title,
  quantity: line.quantity,
  unitPrice: line.unitPrice,
  total: line.total,
  postage: line.buyerPostage ?? 0,
  fee: line.fee,
  currency: line.currency,
  buyerTown: line.buyerTown ?? '',
  createdAt: line.soldAt.getTime(),
  updatedAt: (cancelledAt ?? line.soldAt).getTime(),
  state: cancelledAt ? 'cancelled' : 'paid',
});

/** What is stocked in quantity: bought anew whenever little is left, sold a few at a time. */
async function writeStock(db: Db, actor: Actor, shops: Shop[], rows: Rows, chance: Chance, now: Date): Promise<void> {
  const stocked = await db
    .select()
    .from(item)
    .where(
      and(
        gt(item.quantity, 1),
        eq(item.isVaried, false),
        gt(item.price, 0),
        sql`${item.category} not like 'prints/artwork%'`,
      ),
    )
    .orderBy(item.id);
  const listed = await db
    .select({ id: listing.id, itemId: listing.itemId, accountId: listing.accountId })
    .from(listing)
    .where(inArray(listing.itemId, [0, ...stocked.map((one) => one.id)]));
  for (const one of stocked) {
    const isFilm = one.category.startsWith('film');
    const { opening, lines } = planStock(isFilm ? 2.6 : 1.2, one.quantity, shops.length, chance, now);
    const began = new Date(now.getTime() - (pastDays + 2) * dayMs);
    await db
      .update(movement)
      .set({ delta: opening, at: began })
      .where(and(eq(movement.itemId, one.id), eq(movement.reason, 'opening')));
    await db
      .update(item)
      .set({ createdAt: began, boughtOn: began.toISOString().slice(0, 10) })
      .where(eq(item.id, one.id));
    for (const line of lines) {
      const shop = line.account === null ? undefined : shops[line.account];
      if (!shop) {
        rows.movements.push({ itemId: one.id, delta: line.delta, reason: 'bought', at: line.at, byName: actor.name });
        continue;
      }
      const id = rows.sales.length + 1;
      const listingId = listed.find((place) => place.itemId === one.id && place.accountId === shop.id)?.id ?? null;
      const sold = soldLine(
        shop,
        { id: one.id, sku: one.sku, title: one.title, cost: one.cost, grams: (one.weightGrams ?? 60) * -line.delta },
        { price: Math.round((one.price ?? 0) * (0.94 + chance.share() * 0.1)), units: -line.delta, at: line.at },
        { id, orderId: `P${String(id).padStart(5, '0')}`, listingId, town: chance.of(towns) },
      );
      rows.sales.push(sold);
      rows.told.push(orderOf(shop, sold, `P${one.sku}`, null));
      rows.movements.push({
        itemId: one.id,
        delta: line.delta,
        reason: 'sold',
        accountId: shop.id,
        saleId: id,
        at: line.at,
        byName: 'Netting',
      });
    }
  }
}

/**
 * Eighteen months in which things were bought, listed, lowered, renewed, sold and called off, as the ledger, the orders and the
 * marketplaces all tell it.
 */
export async function writePast(db: Db, actor: Actor): Promise<void> {
  const now = new Date();
  const accounts = await loadAccounts(db);
  const shops = order.flatMap((market) => accounts.filter((one) => one.row.market === market).slice(0, 1));
  const rows: Rows = {
    sales: [],
    movements: [],
    changes: [],
    listings: [],
    previous: [],
    told: [],
  };
  const chance = chanceOf(77);
  await writeStock(db, actor, shops, rows, chance, now);
  await writePieces(db, actor, shops, rows, chance, now);
  // Orders are numbered as they came; what speaks of them follows.
  const byTime = [...rows.sales].sort((a, b) => Number(a.soldAt) - Number(b.soldAt));
  const numberOf = new Map(byTime.map((one, at) => [one.id, at + 1]));
  const numbered = byTime.map((one) => ({ ...one, id: numberOf.get(one.id) }));
  const moved = rows.movements
    .map((one) => ({ ...one, saleId: one.saleId ? numberOf.get(one.saleId) : null }))
    .sort((a, b) => Number(a.at) - Number(b.at));
  await insertAll(rows.listings, (some) => db.insert(listing).values(some));
  await insertAll(numbered, (some) => db.insert(sale).values(some));
  await insertAll(moved, (some) => db.insert(movement).values(some));
  await insertAll(rows.changes, (some) => db.insert(changeRecord).values(some));
  await insertAll(rows.previous, (some) => db.insert(previousRemoteId).values(some));
  await tellPast(rows.told);
}
