import { inState, rewritten } from './oddities';
import type { Data, Listing, Market, Order, OrderLine, Rules } from './types';
import { chosenVariant, variantsOf, withVariantSold } from './variants';
import type { Deliverer } from './webhooks';
import type { World } from './world';

const day = 86_400_000;

export const renewalAfter = (world: World, market: Market): number | null => {
  const { renewDays } = world.rules(market);
  return renewDays === null ? null : world.now() + renewDays * day;
};

export const endAfter = (world: World, market: Market, data: Data = {}): number | null => {
  const timed = market.timedOf?.(data);
  if (timed) return world.now() + timed.days * day;
  const { endsAfterDays } = world.rules(market);
  return endsAfterDays ? world.now() + endsAfterDays * day : null;
};

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

/** How something is bought, where it is not as usual. */
type More = {
  /** For this price a piece: an offer that was taken, the highest bid. */
  at?: number;
  byClock?: boolean;
  collect?: boolean;
  personal?: string;
  /** Found through advertising. */
  advertised?: boolean;
  /** The seller is told later, of all that was bought together. */
  untold?: boolean;
};

/** A buyer buys: stock goes down at once, an order is written, the seller is told. */
export async function buy(
  world: World,
  deliverer: Deliverer,
  market: Market,
  listing: Listing,
  quantity: number,
  town: string,
  wanted = '',
  more: More = {},
): Promise<Order | string> {
  const summary = market.summary(listing.data);
  if (listing.state !== 'live') return 'This listing is not on sale any more.';
  if (quantity < 1 || quantity > summary.quantity) return `Only ${summary.quantity} left.`;
  const variants = variantsOf(market, listing.data);
  const variant = variants.length ? chosenVariant(variants, wanted, quantity) : undefined;
  if (variants.length && !variant) return 'Choose one of the variations.';
  if (variant && variant.stock < quantity) return `Only ${variant.stock} left of ${variant.values.join(', ')}.`;
  if (market.timedOf?.(listing.data) && !more.byClock) return 'This is sold by the clock: bid for it.';
  const asked = market.asksFor?.(listing.data) ?? '';
  if (asked && more.at === undefined && !more.personal) return `Say what you want on it: ${asked}`;
  if (more.collect && !market.mayCollect?.(listing.data)) return 'This cannot be fetched.';
  const usual = variant?.cents ?? market.priceAt?.(listing.data, quantity, world.now()) ?? summary.price;
  const unitPrice = more.at ?? usual;
  const total = unitPrice * quantity;
  const rules = world.rules(market);
  const postage = more.collect ? 0 : (market.postageOf?.(rules, listing.data) ?? 0);
  const label = more.collect ? 0 : (market.labelOf?.(rules, listing.data) ?? 0);
  const bought = variant ? (market.forVariant?.(listing.data, variant.values) ?? listing.data) : listing.data;
  const paid = { ...bought, ...(more.collect ? { handover: 'collect' } : {}) };
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
    postage,
    ...(label ? { label } : {}),
    ...(more.collect ? { collected: true } : {}),
    ...(more.personal ? { personal: more.personal } : {}),
    fee:
      market.feeOf(rules, total + postage, paid, quantity) +
      (more.advertised ? advertisingFee(rules, listing.data, total + postage) : 0),
    currency: rules.currency,
    buyerTown: town,
    variant: variant ? { values: variant.values, number: variant.number } : null,
    createdAt: world.now(),
    state: 'paid',
  };
  const placed = inState(order, world.odd(market.name));
  await Promise.all([saving, world.store.put(`orders/${market.name}`, order.id, placed)]);
  if (!more.untold) await deliverer.send(market.name, listing.seller, 'sale', { order: order.id, listing: listing.id });
  return placed;
}

/** The share of the price that advertising costs, where the listing says a rate. */
const advertisingFee = (rules: Rules, data: Data, total: number): number => {
  const rate = data[`${String(rules.fees.advertisingField ?? '')}Percent`] ?? 0;
  return Math.round((total * Number(rate)) / 100) || 0;
};

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

/** A buyer takes several things of one seller in one order: one parcel, and perhaps something taken off. */
export async function buyTogether(
  world: World,
  deliverer: Deliverer,
  market: Market,
  wanted: readonly { listing: Listing; quantity: number; variant: string }[],
  discount = 0,
): Promise<Order | string> {
  const orders: Order[] = [];
  for (const { listing, quantity, variant } of wanted) {
    const order = await buy(world, deliverer, market, listing, quantity, 'Marrowby', variant, { untold: true });
    if (typeof order === 'string') return order;
    orders.push(order);
  }
  const [first, ...others] = orders;
  if (!first) return 'Nothing was chosen.';
  for (const one of others) await world.store.remove(`orders/${market.name}`, one.id);
  // One parcel for all of it: the dearest postage of them. Fees are taken of what was paid, line by line.
  const postage = Math.max(...orders.map((one) => one.postage));
  const total = orders.reduce((sum, one) => sum + one.total, 0);
  const rules = world.rules(market);
  const lines = orders.map((one) => {
    const data = world.listing(market.name, one.listing)?.data ?? {};
    const share = total ? one.total / total : 0;
    return lineOf({
      ...one,
      fee: market.feeOf(rules, Math.round(one.total + (postage - discount) * share), data, one.quantity),
    });
  });
  const whole = await world.store.put<Order>(`orders/${market.name}`, first.id, { ...first, postage, discount, lines });
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
