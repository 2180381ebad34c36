import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crateway } from '../crateway/market';
import { hallowick } from '../hallowick/market';
import { oakhand } from '../oakhand/market';
import { pippet } from '../pippet/market';
import { selasar } from '../selasar/market';
import { apiRoutes } from './api';
import { chargesOf } from './charges';
import { dataOf } from './checks';
import { passTime } from './clock';
import { Listings } from './listings';
import { readOddities } from './oddities';
import { buy, passReviews } from './selling';
import { Store } from './store';
import { bid } from './timed';
import { traits } from './traits';
import type { Data, Listing, Market, Rules } from './types';
import { Deliverer } from './webhooks';
import { World } from './world';

const days = (count: number) => count * 86_400_000;
let folder = '';
let store: Store;
let world: World;
let deliverer: Deliverer;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'netting-time-'));
  store = new Store(join(folder, 'store'));
  world = new World(store, [hallowick, pippet, oakhand, crateway, selasar], folder);
  deliverer = new Deliverer(world);
  for (const market of world.markets) await store.put('photos', `${market.name}/p`, { width: 1_600, height: 1_600 });
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true, force: true });
});

const leaf = (market: Market, name: string) =>
  market.firstRules.categories.find((one) => one.leaf && one.name === name)?.id ?? '';
const onOakhand = (): Data => ({
  name: 'Quay strap',
  about: 'Leather',
  category:
    oakhand.firstRules.categories.find((one) => one.leaf && !one.attributes.some((it) => it.required))?.id ?? '',
  condition: 'new',
  price: 3_900,
  amount: 2,
  pictureNumbers: ['p'],
  maker: 'me',
  decade: '2020s',
  kind: 'finished',
  postageProfile: 'parcel',
  returnProfile: 'no',
});
const onHallowick = (part: Data): Data => ({
  heading: 'Brask K-2',
  story: '<p>Fine</p>',
  category: leaf(hallowick, 'Film SLR cameras'),
  details: { film_format: '35 mm', model: 'K-2' },
  condition: { grade: 'used' },
  price: { value: '100.00', currency: 'EUR' },
  stock: 1,
  pictures: ['p'],
  parcel: { pounds: 2 },
  terms: { returns: 'none', postage: 'free' },
  ...part,
});
const onPippet: Data = {
  name: 'Brask K-2',
  text: 'Checked and fine',
  category: leaf(pippet, 'Film cameras'),
  grade: 'fine',
  brand: 'Brask',
  cents: 10_000,
  photos: ['p'],
  postagePaidBy: 'buyer',
  weightClass: 'light',
};

const onSelasar = (sellerSku: string): Data => {
  const isColour = ({ name }: { name: string }) => name === traits.colour.names[2];
  const leaf = selasar.firstRules.categories.find((one) => one.leaf && !one.attributes.some(isColour));
  const wanted = leaf?.attributes.filter((one) => one.required) ?? [];
  return {
    sellerSku,
    name: 'Quay strap',
    brand: 'No brand',
    description: '<p>Leather</p>',
    category: leaf?.id ?? '',
    attributes: Object.fromEntries(wanted.map((one) => [one.id, one.values?.[0] ?? 'Any'])),
    condition: 'new',
    highlights: ['Wide', 'Soft'],
    contents: ['1 x Strap'],
    images: ['p'],
    price: { amount: '90.00', currency: 'SGD' },
    quantity: 2,
    parcel: { kilograms: 0.3, centimetres: [20, 10, 4] },
  };
};

async function made(market: Market, data: Data): Promise<Listing> {
  const who = world.seller(market.name, 's') ?? (await world.addSeller(market.name, 's', 'p'));
  const { listing, refusal } = await new Listings(world, market).create(who, data);
  if (!listing) throw new Error(JSON.stringify(refusal));
  return listing;
}
const now = (listing: Listing) => world.listing(listing.market, listing.id);
const billed = (market: Market) => chargesOf(world, market.name, 's').map(({ kind, amount }) => [kind, amount]);
const publish = (market: Market, change: (rules: Rules) => void) => {
  const rules = structuredClone(world.rules(market));
  change(rules);
  return store.put('rules', market.name, rules);
};
async function after(time: number) {
  await world.advance(time);
  return passTime(world, deliverer);
}

test('a listing is billed when it is made and as often as its renewal was due, by the rules of the day', async () => {
  await made(oakhand, onOakhand());
  expect(billed(oakhand)).toEqual([['listing', 22]]);
  expect(await after(days(99))).toEqual({ renewed: 0, ended: 0 });
  expect(await after(days(110))).toEqual({ renewed: 2, ended: 0 });
  await publish(oakhand, (rules) => {
    rules.fees.listing = { ...dataOf(rules.fees.listing), amount: 30 };
  });
  await after(days(100));
  expect(billed(oakhand)).toEqual([
    ['listing', 22],
    ['renewal', 22],
    ['renewal', 22],
    ['renewal', 30],
  ]);
});

test('the first listings are free as long as free ones are left', async () => {
  await publish(hallowick, (rules) => {
    rules.fees.listing = { ...dataOf(rules.fees.listing), freeLive: 1 };
  });
  await made(hallowick, onHallowick({}));
  expect(billed(hallowick)).toEqual([]);
  await made(hallowick, onHallowick({}));
  expect(billed(hallowick)).toEqual([['listing', 25]]);
});

test('a price drops by a twentieth of what it was at first, each week, four times at most', async () => {
  const listing = await made(pippet, onPippet);
  const still = await made(pippet, { ...onPippet, priceDrops: false });
  const prices: unknown[] = [];
  for (let week = 0; week < 6; week++) {
    await after(days(7));
    prices.push(now(listing)?.data.cents);
  }
  expect(prices).toEqual([9_500, 9_000, 8_500, 8_000, 8_000, 8_000]);
  expect(now(still)?.data.cents).toBe(10_000);
});

test('the highest bid buys when the clock has run out, for what was bid', async () => {
  const listing = await made(hallowick, onHallowick({ format: 'timed', timed: { days: 5, reserve: '120.00' } }));
  const offer = (amount: number) => bid(world, deliverer, hallowick, now(listing) ?? listing, amount, 'Una');
  expect(await offer(9_000)).toBe('Bids begin at 10000.');
  expect(await offer(11_000)).toEqual({ highest: 11_000 });
  expect(await offer(11_000)).toContain('Somebody has bid');
  expect(await offer(13_000)).toEqual({ highest: 13_000 });
  expect(await after(days(4))).toMatchObject({ ended: 0 });
  expect(await after(days(2))).toMatchObject({ ended: 1 });
  expect(now(listing)?.state).toBe('sold');
  expect(store.all<{ total: number }>('orders/hallowick').map((order) => order.total)).toEqual([13_000]);
});

test('a timed sale whose bids stay under what is wanted at least ends unsold', async () => {
  const listing = await made(hallowick, onHallowick({ format: 'timed', timed: { days: 5, reserve: '120.00' } }));
  await bid(world, deliverer, hallowick, listing, 11_000, 'Una');
  await after(days(6));
  expect(now(listing)?.state).toBe('ended');
  expect(store.all('orders/hallowick')).toEqual([]);
});

test('what lies in the warehouse is billed by volume each month, and its handling when it is sold', async () => {
  const offer = { product: 'CW4014', condition: 'good', cents: 14_900, quantity: 10, tax: 'margin' };
  const stored = await made(crateway, { ...offer, ships: 'warehouse' });
  await made(crateway, { ...offer, ships: 'self' });
  await after(days(65));
  // 2 × 1.4 × 1.2 dm make 3.36 l; ten of them at 3 cents a litre and month.
  expect(billed(crateway)).toEqual([
    ['storage', 101],
    ['storage', 101],
  ]);
  const order = await buy(world, deliverer, crateway, now(stored) ?? stored, 2, 'Marrowby');
  expect(order).toMatchObject({ fee: 29_800 * 0.14 + 2 * 480 });
});

test('what a seller switched off keeps its number and can be switched on; what was deleted cannot, nor its number used', async () => {
  const who = await world.addSeller('selasar', 's', 'p');
  const there = new Listings(world, selasar);
  const listing = await made(selasar, onSelasar('QS-100'));
  await after(2_000);
  await passReviews(world, deliverer);
  expect(now(listing)?.state).toBe('live');
  expect((await there.switchOff(who, listing.id)).listing?.state).toBe('off');
  expect(await buy(world, deliverer, selasar, now(listing) ?? listing, 1, 'Marrowby')).toBe(
    'This listing is not on sale any more.',
  );
  expect((await there.create(who, onSelasar('QS-100'))).refusal?.problems).toMatchObject([{ pointer: '/sellerSku' }]);
  const on = await there.switchOn(who, listing.id, { quantity: 5 });
  expect(on.listing).toMatchObject({ id: listing.id, state: 'live', endedAt: null, data: { quantity: 5 } });
  // Ended is deleted here, also what is switched off.
  await there.switchOff(who, listing.id);
  expect((await there.end(who, listing.id)).listing?.state).toBe('ended');
  expect((await there.switchOn(who, listing.id, {})).refusal?.status).toBe(409);
});

test('lists in short pages hold no more than they may, and name the next page until all were shown', async () => {
  const ids = [await made(pippet, onPippet), await made(pippet, onPippet), await made(pippet, onPippet)].map(
    (one) => one.id,
  );
  const seller = world.seller('pippet', 's');
  world.oddities.set('pippet', readOddities({ mostAtOnce: 2 }));
  const app = apiRoutes(world, pippet, deliverer);
  const page = async (after: string) => {
    const answer = await app.request(`/listings?limit=200&after=${after}`.replace('listings', pippet.paths.listings), {
      headers: { 'x-api-key': seller?.apiKey ?? '' },
    });
    return (await answer.json()) as { listings: { id: string }[]; next: string | null };
  };
  const first = await page('');
  const second = await page(first.next ?? '');
  expect(first.listings).toHaveLength(2);
  expect(second.next).toBeNull();
  expect([...first.listings, ...second.listings].map((one) => one.id).sort()).toEqual([...ids].sort());
});
