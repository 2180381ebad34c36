import { dataOf, numberOf } from './checks';
import type { Json, Listing, Market, Rules } from './types';
import type { World } from './world';

/** What a seller is billed for outside of sales: by the rules that hold on the day. */
export type Charge = {
  id: string;
  market: string;
  seller: string;
  listing: string;
  kind: 'listing' | 'renewal' | 'storage';
  amount: number;
  at: number;
};

const numberIn = (value: Json | undefined): number => numberOf(value) || 0;

/** What one more live listing costs: nothing as long as free ones are left. */
function listingFee(world: World, market: Market, listing: Listing, rules: Rules): number {
  const { amount, freeLive } = dataOf(rules.fees.listing);
  const live = world
    .listings(market.name, listing.seller)
    .filter((one) => one.id !== listing.id && (one.state === 'live' || one.state === 'review'));
  return live.length >= numberIn(freeLive) ? numberIn(amount) : 0;
}

/** Writes down what is to be paid for a listing; nothing where nothing is. */
export async function charge(
  world: World,
  market: Market,
  listing: Listing,
  kind: Charge['kind'],
  amount = listingFee(world, market, listing, world.rules(market)),
): Promise<void> {
  if (amount <= 0) return;
  const id = await world.nextId(market.name, 'charge');
  const made: Charge = {
    id,
    market: market.name,
    seller: listing.seller,
    listing: listing.id,
    kind,
    amount,
    at: world.now(),
  };
  await world.store.put(`charges/${market.name}`, id, made);
}

/** What a seller was billed, oldest first. */
export const chargesOf = (world: World, market: string, seller: string): Charge[] =>
  world.store
    .all<Charge>(`charges/${market}`)
    .filter((one) => one.seller === seller)
    .sort((a, b) => Number(a.id) - Number(b.id));
