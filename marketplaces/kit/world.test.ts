import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { glintfeed } from '../glintfeed/market';
import { lanesend } from '../lanesend/market';
import { selasar } from '../selasar/market';
import { wallfolk } from '../wallfolk/market';
import { passTime } from './clock';
import { jpegMeasures } from './jpeg';
import { Listings } from './listings';
import { buy, passReviews } from './selling';
import { Store } from './store';
import type { Data, Market, Seller } from './types';
import { Deliverer } from './webhooks';
import { World } from './world';

let folder = '';
let store: Store;
let world: World;
let deliverer: Deliverer;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'netting-world-'));
  store = new Store(join(folder, 'store'));
  world = new World(store, [selasar, lanesend, glintfeed, wallfolk], folder);
  deliverer = new Deliverer(world);
  for (const [id, width, height] of [
    ['square', 800, 800],
    ['art', 2_600, 2_000],
  ] as const)
    for (const market of world.markets) await store.put('photos', `${market.name}/${id}`, { width, height });
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true, force: true });
});

const seller = (market: Market, exceptions = {}): Promise<Seller> => world.addSeller(market.name, 's', 'p', exceptions);
const leaf = (market: Market) =>
  market.firstRules.categories.find((one) => one.leaf && one.attributes.every((attribute) => !attribute.required))
    ?.id ?? '';
const ad = (part: Data = {}): Data => ({
  mark: 'A-1',
  subject: 'Camera',
  body: 'Fine',
  section: leaf(lanesend),
  grade: 'good',
  cents: 9_900,
  pictures: ['square'],
  place: 'Osterlund',
  handover: 'collect',
  ...part,
});

test('a listing is made, changed, ended; a null takes a field away', async () => {
  const listings = new Listings(world, lanesend);
  const who = await seller(lanesend);
  const made = await listings.create(who, ad({ keywords: ['one'], weightClass: null }));
  expect(made.listing).toMatchObject({ state: 'live', data: { subject: 'Camera', keywords: ['one'] } });
  expect(made.listing?.data).not.toHaveProperty('weightClass');
  const id = made.listing?.id ?? '';
  expect((await listings.change(who, id, { cents: 5_000, keywords: null })).listing?.data).toEqual(
    expect.not.objectContaining({ keywords: ['one'] }),
  );
  expect((await listings.end(who, id)).listing?.state).toBe('ended');
  expect((await listings.end(who, id)).listing?.state).toBe('ended');
  expect((await listings.change(who, id, { cents: 1 })).refusal?.status).toBe(409);
});

test('nobody touches another’s listing', async () => {
  const listings = new Listings(world, lanesend);
  const made = await listings.create(await seller(lanesend), ad());
  const other = await world.addSeller('lanesend', 'other', 'p');
  expect(listings.owned(other, made.listing?.id ?? '').refusal?.status).toBe(404);
  expect((await listings.change(other, made.listing?.id ?? '', { cents: 1 })).refusal?.status).toBe(404);
});

test('over the daily number: first a warning, then a lock', async () => {
  const listings = new Listings(world, lanesend);
  const who = await seller(lanesend, { newPerDay: 1 });
  expect((await listings.create(who, ad())).listing).toBeDefined();
  const warned = await listings.create(world.seller('lanesend', 's') ?? who, ad());
  expect(warned.refusal).toMatchObject({ status: 429 });
  const locked = await listings.create(world.seller('lanesend', 's') ?? who, ad());
  expect(locked.refusal).toMatchObject({ status: 403 });
  expect(world.seller('lanesend', 's')?.lockedUntil).toBeGreaterThan(world.now());
});

test('a small ad ends after three weeks, not a day before', async () => {
  const listings = new Listings(world, lanesend);
  const made = await listings.create(await seller(lanesend), ad());
  const state = () => world.listing('lanesend', made.listing?.id ?? '')?.state;
  await world.advance(20 * 86_400_000);
  expect(await passTime(world, deliverer)).toEqual({ renewed: 0, ended: 0 });
  expect(state()).toBe('live');
  await world.advance(2 * 86_400_000);
  expect(await passTime(world, deliverer)).toEqual({ renewed: 0, ended: 1 });
  expect(state()).toBe('ended');
});

const mallItem = (part: Data = {}): Data => ({
  name: 'Brask K 2 camera (Jet)',
  brand: 'Brask',
  description: '<p>Fine</p>',
  category: selasar.firstRules.categories.find((one) => one.name === 'Mirror reflex cameras')?.id ?? '',
  attributes: { film_size: 'Small picture 35 mm', shade: 'Jet' },
  condition: 'used-a',
  highlights: ['one', 'two'],
  contents: ['1 x Camera'],
  images: ['square'],
  price: { amount: '199.00', currency: 'SGD' },
  quantity: 2,
  parcel: { kilograms: 0.9, centimetres: [19, 13, 12] },
  sellerSku: 'C1-100',
  ...part,
});

test('a review ends with the listing live, or refused with its reasons', async () => {
  const listings = new Listings(world, selasar);
  const who = await seller(selasar);
  const fine = await listings.create(who, mallItem());
  const copy = await listings.create(who, mallItem({ sellerSku: 'C1-101', highlights: ['a replica', 'two'] }));
  const odd = await listings.create(who, mallItem({ sellerSku: 'C1-102' }));
  expect([fine, copy, odd].map((one) => one.listing?.state)).toEqual(['review', 'review', 'review']);
  await passReviews(world, deliverer);
  expect(world.listing('selasar', fine.listing?.id ?? '')?.state).toBe('review');
  await world.advance(5_000);
  await passReviews(world, deliverer);
  expect(world.listing('selasar', fine.listing?.id ?? '')?.state).toBe('live');
  expect(world.listing('selasar', copy.listing?.id ?? '')).toMatchObject({
    state: 'refused',
    reasons: [{ detail: expect.stringContaining('Copies'), pointer: expect.stringMatching(/^\//) }],
  });
});

test('a seller’s number is never taken twice, also after its listing is gone', async () => {
  const listings = new Listings(world, selasar);
  const who = await seller(selasar);
  const first = await listings.create(who, mallItem());
  await listings.end(who, first.listing?.id ?? '');
  const again = await listings.create(who, mallItem());
  expect(again.refusal?.problems.map((one) => one.pointer)).toEqual(['/sellerSku']);
  expect((await listings.create(who, mallItem({ sellerSku: 'C1-100-2' }))).listing).toBeDefined();
});

test('a number that a change gave is taken for good, and so is the one before it', async () => {
  const listings = new Listings(world, selasar);
  const who = await seller(selasar);
  const first = await listings.create(who, mallItem());
  const id = first.listing?.id ?? '';
  expect((await listings.change(who, id, { sellerSku: 'C1-200' })).listing).toBeDefined();
  await listings.end(who, id);
  for (const sellerSku of ['C1-100', 'C1-200'])
    expect((await listings.create(who, mallItem({ sellerSku }))).refusal?.problems.map((one) => one.pointer)).toEqual([
      '/sellerSku',
    ]);
});

test('two buyers cannot have the same piece; nothing can be bought from a showcase', async () => {
  const listings = new Listings(world, lanesend);
  const made = await listings.create(await seller(lanesend), ad({ pieces: 1 }));
  const now = () => world.listing('lanesend', made.listing?.id ?? '');
  const listing = now();
  if (!listing) throw new Error('not made');
  expect(await buy(world, deliverer, lanesend, listing, 1, 'Marrowby')).toMatchObject({
    quantity: 1,
    total: 9_900,
    fee: 0,
  });
  const after = now();
  expect(after?.state).toBe('sold');
  expect(typeof (after && (await buy(world, deliverer, lanesend, after, 1, 'Marrowby')))).toBe('string');
  const post = await new Listings(world, glintfeed).create(await seller(glintfeed), {
    caption: 'Look',
    picture: 'square',
  });
  expect(post.listing && (await buy(world, deliverer, glintfeed, post.listing, 1, 'x'))).toBe('Only 0 left.');
});

test('what is made to order is never sold out, and the maker keeps the base price', async () => {
  const design = {
    title: 'Fog',
    text: 'Fog',
    theme: leaf(wallfolk),
    artwork: 'art',
    product: 'mug',
    ground: 'white',
    cents: 1_500,
  };
  const made = await new Listings(world, wallfolk).create(await seller(wallfolk), design);
  if (!made.listing) throw new Error(JSON.stringify(made.refusal));
  expect(await buy(world, deliverer, wallfolk, made.listing, 1, 'x')).toMatchObject({ total: 1_500, fee: 690 });
  expect(world.listing('wallfolk', made.listing.id)?.state).toBe('live');
});

test('what was stored is there after a restart', async () => {
  const listings = new Listings(world, lanesend);
  const made = await listings.create(await seller(lanesend), ad());
  const before = world.listing('lanesend', made.listing?.id ?? '');
  await store.close();
  store = new Store(join(folder, 'store'));
  const fresh = new World(store, [lanesend], folder);
  expect(before).not.toBeNull();
  expect(fresh.listing('lanesend', made.listing?.id ?? '')).toEqual(before);
});

test.each([
  ['no picture at all', Buffer.from('hello'), null],
  ['a beginning only', Buffer.from([0xff, 0xd8, 0xff]), null],
  [
    'a frame header',
    Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 11, 8, 2, 88, 3, 32, 1, 1, 0x11, 0]),
    { width: 800, height: 600 },
  ],
  ['nonsense between markers', Buffer.from([0xff, 0xd8, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]), null],
])('%s measures %j', (_what, bytes, measures) => expect(jpegMeasures(bytes)).toEqual(measures));
