import { charge } from './charges';
import { passOffers } from './offers';
import { takeDown } from './selling';
import { closeTimed } from './timed';
import type { Listing, Market } from './types';
import type { Deliverer } from './webhooks';
import type { World } from './world';

const day = 86_400_000;
const dropEvery = 7 * day;
const mostDrops = 4;

/** A price falls by a twentieth of what it was at first, every week, a few times. */
async function passDrops(world: World, deliverer: Deliverer, market: Market, listing: Listing): Promise<Listing> {
  const from = listing.drops?.from ?? market.summary(listing.data).price;
  const due = Math.min(mostDrops, Math.floor((world.now() - listing.createdAt) / dropEvery));
  if (!market.dropTo || due <= (listing.drops?.count ?? 0)) return listing;
  const data = market.dropTo(listing.data, Math.round(from * (1 - due / 20)));
  if (!data) return listing;
  const dropped = await world.saveListing({ ...listing, data, drops: { count: due, from } });
  await deliverer.send(market.name, listing.seller, 'changed', { listing: listing.id });
  return dropped;
}

/** Renewed as often as it was due, and charged each time by the rules that hold now. */
async function passRenewals(world: World, market: Market, listing: Listing): Promise<number> {
  const { renewDays } = world.rules(market);
  let { renewsAt } = listing;
  let times = 0;
  while (renewsAt !== null && renewDays !== null && renewsAt <= world.now()) {
    await charge(world, market, listing, 'renewal');
    renewsAt += renewDays * day;
    times++;
  }
  if (times) await world.saveListing({ ...listing, renewsAt });
  return times;
}

/** A month in the warehouse is billed when it is over, by the rules and the pieces of that day. */
async function passStorage(world: World, market: Market, listing: Listing): Promise<Listing> {
  const due = Math.floor((world.now() - listing.createdAt) / (30 * day));
  if (!market.storageOf || due <= (listing.months ?? 0)) return listing;
  const amount = market.storageOf(world.rules(market), listing.data);
  for (let month = listing.months ?? 0; month < due; month++) await charge(world, market, listing, 'storage', amount);
  return world.saveListing({ ...listing, months: due });
}

/** What happens by the clock alone: storage is billed, prices drop, listings are renewed, end by themselves, are sold to the highest bid. */
export async function passTime(world: World, deliverer: Deliverer): Promise<{ renewed: number; ended: number }> {
  const passed = { renewed: 0, ended: 0 };
  for (const market of world.markets) {
    for (const one of world.listings(market.name)) {
      if (one.state !== 'live') continue;
      const listing = await passDrops(world, deliverer, market, await passStorage(world, market, one));
      if (listing.endsAt && listing.endsAt <= world.now()) {
        if (!(await closeTimed(world, deliverer, market, listing))) await takeDown(world, deliverer, listing);
        passed.ended++;
      } else passed.renewed += await passRenewals(world, market, listing);
    }
  }
  await passOffers(world, deliverer);
  return passed;
}
