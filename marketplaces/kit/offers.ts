import { buy } from './selling';
import type { Listing, Market, Order } from './types';
import type { Deliverer } from './webhooks';
import type { World } from './world';

/** What a buyer would pay, until when, and what has become of it. */
export type Offer = {
  id: string;
  market: string;
  seller: string;
  listing: string;
  amount: number;
  buyer: string;
  words: string;
  createdAt: number;
  deadline: number;
  state: 'open' | 'accepted' | 'declined' | 'countered' | 'expired';
  /** What the seller would take instead. */
  counter: number | null;
  order: string | null;
};

const hour = 3_600_000;
const hoursOpen = 48;
export const isOpen = (offer: Offer): boolean => offer.state === 'open' || offer.state === 'countered';

const put = (world: World, offer: Offer): Promise<Offer> =>
  world.store.put<Offer>(`offers/${offer.market}`, offer.id, offer);

export const offersOn = (world: World, market: string): Offer[] => world.store.all<Offer>(`offers/${market}`);

/** The listing names those that are open, as long as they are: they keep it from being ended on some marketplaces. */
async function noteOpen(world: World, deliverer: Deliverer, offer: Offer): Promise<void> {
  const listing = world.listing(offer.market, offer.listing);
  if (listing) {
    const others = listing.offers.filter((one) => one.id !== offer.id);
    const mine = isOpen(offer) ? [{ id: offer.id, amount: offer.amount, buyer: offer.buyer }] : [];
    await world.saveListing({ ...listing, offers: [...others, ...mine] });
  }
  await deliverer.send(offer.market, offer.seller, 'offer', { listing: offer.listing, offer: offer.id });
}

type Wish = { amount: number; buyer: string; words: string; hours?: number };

/** A buyer offers less than is asked; one below what the seller will ever take is declined at once, unheard. */
export async function makeOffer(
  world: World,
  deliverer: Deliverer,
  market: Market,
  listing: Listing,
  { amount, buyer, words, hours = hoursOpen }: Wish,
): Promise<Offer | string> {
  const terms = market.offersOf?.(listing.data);
  if (terms && !terms.taken) return 'This seller takes no offers here.';
  if (listing.state !== 'live') return 'This listing is not on sale any more.';
  const isTooLow = terms?.declineBelow !== null && terms !== undefined && amount < terms.declineBelow;
  const offer = await put(world, {
    id: `${market.name.slice(0, 1).toUpperCase()}F${await world.nextId(market.name, 'offer')}`,
    market: market.name,
    seller: listing.seller,
    listing: listing.id,
    amount,
    buyer,
    words,
    createdAt: world.now(),
    deadline: world.now() + hours * hour,
    state: isTooLow ? 'declined' : 'open',
    counter: null,
    order: null,
  });
  if (!isTooLow) await noteOpen(world, deliverer, offer);
  return offer;
}

export type Reply = { answer: 'accept' | 'decline' } | { answer: 'counter'; amount: number };

/** The seller's answer. Taken, it is an order at that price; said again, it changes nothing. */
export async function answerOffer(
  world: World,
  deliverer: Deliverer,
  market: Market,
  offer: Offer,
  reply: Reply,
): Promise<Offer | string> {
  if (offer.state === 'accepted' && reply.answer === 'accept') return offer;
  if (offer.state === 'declined' && reply.answer === 'decline') return offer;
  if (!isOpen(offer)) return 'This offer is not open any more.';
  if (reply.answer === 'counter') {
    if (!(reply.amount > offer.amount)) return 'A counter-offer lies above the offer.';
    const countered = await put(world, { ...offer, state: 'countered', counter: reply.amount });
    await noteOpen(world, deliverer, countered);
    return countered;
  }
  if (reply.answer === 'decline') {
    const declined = await put(world, { ...offer, state: 'declined' });
    await noteOpen(world, deliverer, declined);
    return declined;
  }
  return sell(world, deliverer, market, offer, offer.amount);
}

async function sell(
  world: World,
  deliverer: Deliverer,
  market: Market,
  offer: Offer,
  price: number,
): Promise<Offer | string> {
  const listing = world.listing(market.name, offer.listing);
  if (!listing) return 'There is no such listing.';
  const order: Order | string = await buy(world, deliverer, market, listing, 1, 'Marrowby', '', { at: price });
  if (typeof order === 'string') return order;
  const accepted = await put(world, { ...offer, state: 'accepted', order: order.id });
  await noteOpen(world, deliverer, accepted);
  return accepted;
}

/** A buyer takes what the seller would take instead. */
export const takeCounter = async (
  world: World,
  deliverer: Deliverer,
  market: Market,
  offer: Offer,
): Promise<Offer | string> =>
  offer.state === 'countered' && offer.counter !== null
    ? sell(world, deliverer, market, offer, offer.counter)
    : 'There is no counter-offer.';

/** Offers whose time is over, and those of what is not on sale any more. */
export async function passOffers(world: World, deliverer: Deliverer): Promise<void> {
  for (const market of world.markets)
    for (const offer of offersOn(world, market.name)) {
      if (!isOpen(offer)) continue;
      const isOver = offer.deadline <= world.now() || world.listing(market.name, offer.listing)?.state !== 'live';
      if (isOver) await noteOpen(world, deliverer, await put(world, { ...offer, state: 'expired' }));
    }
}

/** All offers on a listing are settled, whatever they were. */
export async function withdrawAll(world: World, deliverer: Deliverer, listing: Listing): Promise<void> {
  for (const offer of offersOn(world, listing.market))
    if (offer.listing === listing.id && isOpen(offer)) await put(world, { ...offer, state: 'expired' });
  await world.saveListing({ ...listing, offers: [] });
  await deliverer.send(listing.market, listing.seller, 'offer', { listing: listing.id, amount: 0 });
}
