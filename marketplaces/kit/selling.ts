import { inState, rewritten } from './oddities';
import type { Data, Listing, Market, Order, OrderLine } from './types';
import { chosenVariant, variantsOf, withVariantSold } from './variants';
import type { Deliverer } from './webhooks';
import type { World } from './world';

const day = 86_400_000;

export const renewalAfter = (world: World, market: Market): number | null => {
  const { renewDays } = world.rules(market);
  return renewDays === null ? null : world.now() + renewDays * day;
};

export const endAfter = (world: World, market: Market): number | null => {
  const { endsAfterDays } = world.rules(market);
  return endsAfterDays ? world.now() + endsAfterDays * day : null;
};

/** Listings whose period is over are renewed, or end by themselves. */
export async function passTime(world: World, deliverer: Deliverer): Promise<{ renewed: number; ended: number }> {
  const passed = { renewed: 0, ended: 0 };
  for (const market of world.markets) {
    for (const listing of world.listings(market.name)) {
      if (listing.state !== 'live') continue;
      if (listing.endsAt && listing.endsAt <= world.now()) {
        await takeDown(world, deliverer, listing);
        passed.ended++;
      } else if (listing.renewsAt !== null && listing.renewsAt <= world.now()) {
        await world.saveListing({ ...listing, renewsAt: renewalAfter(world, market) });
        passed.renewed++;
      }
    }
  }
  return passed;
}

/** Reviews that are over: the listing goes live, or is refused with reasons; the seller is told. */
export async function passReviews(world: World, deliverer: Deliverer): Promise<void> {
  for (const market of world.markets) {
    if (!market.review) continue;
    for (const listing of world.listings(market.name)) {
      if (listing.state !== 'review' || (listing.reviewAt ?? 0) > world.now()) continue;
      const asked = world.rejections.get(market.name)?.shift();
      const reasons = [...(asked ? [asked] : []), ...market.review(listing.data)];
      const state = reasons.length ? 'refused' : 'live';
      await world.saveListing({ ...listing, state, reasons, endedAt: reasons.length ? world.now() : null });
      await deliverer.send(market.name, listing.seller, 'reviewed', { listing: listing.id, verdict: state, reasons });
    }
  }
}

/** A buyer buys: stock goes down at once, an order is written, the seller is told. */
export async function buy(
  world: World,
  deliverer: Deliverer,
  market: Market,
  listing: Listing,
  quantity: number,
  town: string,
  wanted = '',
  tell = true,
): Promise<Order | string> {
  const summary = market.summary(listing.data);
  if (listing.state !== 'live') return 'This listing is not on sale any more.';
  if (quantity < 1 || quantity > summary.quantity) return `Only ${summary.quantity} left.`;
  const variants = variantsOf(market, listing.data);
  const variant = variants.length ? chosenVariant(variants, wanted, quantity) : undefined;
  if (variants.length && !variant) return 'Choose one of the variations.';
  if (variant && variant.stock < quantity) return `Only ${variant.stock} left of ${variant.values.join(', ')}.`;
  const unitPrice = variant?.cents ?? summary.price;
  const total = unitPrice * quantity;
  const rules = world.rules(market);
  const left = summary.quantity - quantity;
  // The listing is changed before anything is awaited, so two buyers cannot have the same piece.
  const sold: Listing = {
    ...listing,
    data: market.withQuantity(variant ? withVariantSold(market, listing, variant, quantity) : listing.data, left),
    state: left === 0 ? 'sold' : 'live',
    endedAt: left === 0 ? world.now() : null,
  };
  const saving = world.saveListing(sold);
  const order: Order = {
    id: `${market.name.slice(0, 1).toUpperCase()}O${await world.nextId(market.name, 'order')}`,
    market: market.name,
    seller: listing.seller,
    listing: listing.id,
    reference: summary.reference,
    title: summary.title,
    quantity,
    unitPrice,
    total,
    postage: market.postageOf?.(rules, listing.data) ?? 0,
    fee: market.feeOf(rules, total + (market.postageOf?.(rules, listing.data) ?? 0), listing.data),
    currency: rules.currency,
    buyerTown: town,
    variant: variant ? { values: variant.values, number: variant.number } : null,
    createdAt: world.now(),
    state: 'paid',
  };
  const placed = inState(order, world.odd(market.name));
  await Promise.all([saving, world.store.put(`orders/${market.name}`, order.id, placed)]);
  if (tell) await deliverer.send(market.name, listing.seller, 'sale', { order: order.id, listing: listing.id });
  return placed;
}

const lineOf = ({ listing, reference, title, quantity, unitPrice, total, fee, variant }: Order): OrderLine => ({
  listing,
  reference,
  title,
  quantity,
  unitPrice,
  total,
  fee,
  variant,
});

/** A buyer takes several things of one seller in one order. */
export async function buyTogether(
  world: World,
  deliverer: Deliverer,
  market: Market,
  wanted: readonly { listing: Listing; quantity: number; variant: string }[],
): Promise<Order | string> {
  const orders: Order[] = [];
  for (const { listing, quantity, variant } of wanted) {
    const order = await buy(world, deliverer, market, listing, quantity, 'Marrowby', variant, false);
    if (typeof order === 'string') return order;
    orders.push(order);
  }
  const [first, ...others] = orders;
  if (!first) return 'Nothing was chosen.';
  for (const one of others) await world.store.remove(`orders/${market.name}`, one.id);
  const whole = await world.store.put<Order>(`orders/${market.name}`, first.id, {
    ...first,
    lines: orders.map(lineOf),
  });
  await deliverer.send(market.name, first.seller, 'sale', { order: first.id, listing: first.listing });
  return whole;
}

/** Seller or buyer call an order off; what was sold is the seller's again, the listing stays as it is. */
export async function cancelOrder(world: World, deliverer: Deliverer, order: Order): Promise<Order> {
  if (order.state === 'cancelled') return order;
  const cancelled = await world.store.put<Order>(`orders/${order.market}`, order.id, {
    ...order,
    state: 'cancelled',
    updatedAt: world.now(),
  });
  await deliverer.send(order.market, order.seller, 'cancelled', { order: order.id, listing: order.listing });
  return cancelled;
}

/** A state of an order that lies between being placed and being called off. */
export async function putOrderState(world: World, deliverer: Deliverer, order: Order, state: string): Promise<Order> {
  const put = await world.store.put<Order>(`orders/${order.market}`, order.id, {
    ...order,
    state,
    updatedAt: world.now(),
  });
  await deliverer.send(order.market, order.seller, 'sale', { order: order.id, listing: order.listing });
  return put;
}

/** The marketplace's house rules go over what was confirmed before. */
export async function applyHouseRules(world: World, deliverer: Deliverer, listing: Listing): Promise<void> {
  const data = rewritten(listing.data, world.odd(listing.market));
  await world.saveListing({ ...listing, data });
  await deliverer.send(listing.market, listing.seller, 'changed', { listing: listing.id });
}

/** Something happens to a listing without its seller: changed, taken down. */
export async function changeBehindTheBack(
  world: World,
  deliverer: Deliverer,
  listing: Listing,
  set: Data,
): Promise<void> {
  await world.saveListing({ ...listing, data: { ...listing.data, ...set } });
  await deliverer.send(listing.market, listing.seller, 'changed', { listing: listing.id });
}

export async function takeDown(world: World, deliverer: Deliverer, listing: Listing): Promise<void> {
  await world.saveListing({ ...listing, state: 'ended', endedAt: world.now() });
  await deliverer.send(listing.market, listing.seller, 'ended', { listing: listing.id });
}
