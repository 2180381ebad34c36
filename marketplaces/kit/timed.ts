import { buy } from './selling';
import type { Listing, Market } from './types';
import type { Deliverer } from './webhooks';
import type { World } from './world';

/** The highest bid so far; null without any. */
export const highestBid = ({ bids = [] }: Pick<Listing, 'bids'>) =>
  bids.reduce<{ amount: number; buyer: string } | null>(
    (high, one) => (one.amount > (high?.amount ?? 0) ? one : high),
    null,
  );

/** A buyer bids in a timed sale: not under the start price, and more than whoever bid before. */
export async function bid(
  world: World,
  deliverer: Deliverer,
  market: Market,
  listing: Listing,
  amount: number,
  buyer: string,
): Promise<{ highest: number } | string> {
  if (!market.timedOf?.(listing.data)) return 'This is not sold by the clock.';
  if (listing.state !== 'live') return 'This listing is not on sale any more.';
  const start = market.summary(listing.data).price;
  const highest = highestBid(listing);
  if (amount < start) return `Bids begin at ${start}.`;
  if (highest && amount <= highest.amount) return `Somebody has bid ${highest.amount} already.`;
  await world.saveListing({ ...listing, bids: [...(listing.bids ?? []), { amount, buyer, at: world.now() }] });
  await deliverer.send(market.name, listing.seller, 'offer', { listing: listing.id, amount });
  return { highest: amount };
}

/**
 * A timed sale whose clock has run out: the highest bid buys it, if it reaches what the seller wants at least; else it ends.
 * @returns whether it was sold
 */
export async function closeTimed(
  world: World,
  deliverer: Deliverer,
  market: Market,
  listing: Listing,
): Promise<boolean> {
  const terms = market.timedOf?.(listing.data);
  const highest = highestBid(listing);
  if (!terms || !highest || highest.amount < terms.reserve) return false;
  const order = await buy(world, deliverer, market, listing, 1, 'Marrowby', '', { at: highest.amount, byClock: true });
  return typeof order !== 'string';
}
