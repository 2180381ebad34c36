import { crateway } from '../crateway/market';
import { glintfeed } from '../glintfeed/market';
import { lanesend } from '../lanesend/market';
import { lotbarn } from '../lotbarn/market';
import { selasar } from '../selasar/market';
import { shopfront } from '../shopfront/market';
import { swishel } from '../swishel/market';
import { wallfolk } from '../wallfolk/market';
import { findProducts, pastSales, presentOffers, products, withCheckDigit } from './products';
import type { Data, Look, Market, Seller } from './types';

const seller: Seller = {
  id: 's',
  market: '',
  name: 's',
  password: '',
  apiKey: '',
  exceptions: {},
  lockedUntil: 0,
  warned: false,
};
const sizes: Record<string, { width: number; height: number }> = {
  wide: { width: 1_200, height: 900 },
  square: { width: 800, height: 800 },
  small: { width: 300, height: 300 },
  strip: { width: 2_400, height: 600 },
  art: { width: 2_600, height: 1_950 },
};
const look: Look = {
  now: Date.UTC(2026, 0, 15),
  photo: (id) => sizes[id],
  clip: (id) => ({ short: { seconds: 12 }, long: { seconds: 16 } })[id],
  taken: (reference) => (reference === 'USED-1' ? '5' : null),
  own: null,
};
const leaf = (market: Market, name: string) =>
  market.firstRules.categories.find((one) => one.leaf && one.name === name)?.id ?? '';
const problems = (market: Market, data: Data, at = look) =>
  market.validate(data, market.firstRules, seller, at).map((one) => one.pointer);

const good: Record<string, [Market, Data]> = {
  swishel: [
    swishel,
    {
      words: 'A camera\nfine',
      shelf: leaf(swishel, 'Mirror reflex cameras'),
      wear: 'used',
      cents: 9_900,
      pics: ['square'],
      postage: 'included',
    },
  ],
  lanesend: [
    lanesend,
    {
      subject: 'Camera',
      body: 'Fine',
      section: leaf(lanesend, 'Single-lens reflex'),
      grade: 'good',
      cents: 9_900,
      pictures: ['wide'],
      place: 'Osterlund',
      handover: 'both',
      weightClass: 'packet',
    },
  ],
  glintfeed: [glintfeed, { caption: 'A camera', picture: 'wide' }],
  selasar: [
    selasar,
    {
      name: 'Brask K 2 camera (Jet)',
      brand: 'Brask',
      description: '<p>Fine</p>',
      category: leaf(selasar, 'Mirror reflex cameras'),
      attributes: { film_size: 'Small picture 35 mm', shade: 'Jet' },
      condition: 'used-a',
      highlights: ['one', 'two'],
      contents: ['1 x Camera'],
      images: ['square'],
      price: { amount: '199.00', currency: 'SGD' },
      quantity: 1,
      parcel: { kilograms: 0.9, centimetres: [19, 13, 12] },
      sellerSku: 'C1-100',
    },
  ],
  crateway: [
    crateway,
    {
      product: 'CW4001',
      condition: 'new',
      cents: 1_500,
      quantity: 3,
      ships: 'self',
      tax: 'standard',
      expires: '2027-01-01',
    },
  ],
  lotbarn: [lotbarn, { entry: 'LB4014', finish: 'black', condition: 'used', cents: 9_900, quantity: 1 }],
  wallfolk: [
    wallfolk,
    {
      title: 'Harbour',
      text: 'Fog',
      theme: leaf(wallfolk, 'Framed prints'),
      details: { motif: 'Harbour' },
      artwork: 'art',
      product: 'mug',
      ground: 'white',
      cents: 1_200,
    },
  ],
  shopfront: [
    shopfront,
    {
      title: 'Camera',
      handle: 'camera-1',
      category: leaf(shopfront, 'Film SLR cameras'),
      condition: 'used',
      price: '99.00',
      images: ['wide'],
      stock: { shop: 1 },
    },
  ],
};

test('a shared product record is adopted by a listing of the same maker', () =>
  expect(problems(selasar, { ...good.selasar?.[1], product: 'SP4014' })).toEqual([]));

test.each(Object.entries(good))('%s accepts a complete listing', (_name, [market, data]) =>
  expect(problems(market, data)).toEqual([]),
);

test.each([
  ['swishel', { words: '' }, '/words'],
  ['swishel', { words: 'x'.repeat(851) }, '/words'],
  ['swishel', { words: 'Has <b>markup</b>' }, '/words'],
  ['swishel', { pics: ['wide'] }, '/pics/0'],
  ['swishel', { pics: ['small'] }, '/pics/0'],
  ['swishel', { pics: Array(6).fill('square') }, '/pics'],
  ['swishel', { hashtags: ['two words'] }, '/hashtags'],
  ['swishel', { hashtags: Array(7).fill('x') }, '/hashtags'],
  ['swishel', { colours: ['black', 'red', 'blue'] }, '/colours'],
  ['swishel', { age: '1830s' }, '/age'],
  ['swishel', { wear: 'odd' }, '/wear'],
  ['lanesend', { place: '' }, '/place'],
  ['lanesend', { handover: 'throw' }, '/handover'],
  ['lanesend', { weightClass: null }, '/weightClass'],
  ['lanesend', { keywords: Array(16).fill('k') }, '/keywords'],
  ['lanesend', { subject: 'x'.repeat(101) }, '/subject'],
  ['lanesend', { pictures: Array(13).fill('wide') }, '/pictures'],
  ['glintfeed', { caption: 'x'.repeat(1_801) }, '/caption'],
  ['glintfeed', { picture: 'strip' }, '/picture/0'],
  ['glintfeed', { picture: 'unknown' }, '/picture/0'],
  ['glintfeed', { picture: null }, '/picture'],
  ['glintfeed', { hashtags: Array(25).fill('h') }, '/hashtags'],
  ['selasar', { name: 'K 2 camera (Jet)' }, '/name'],
  ['selasar', { product: 'SP1' }, '/product'],
  ['selasar', { product: 'SP4001' }, '/product'],
  ['selasar', { name: 'Brask K-2 camera (Jet)' }, '/name'],
  ['selasar', { name: 'Brask K 2 camera' }, '/name'],
  ['selasar', { name: `Brask ${'x'.repeat(110)}` }, '/name'],
  ['selasar', { description: '<p>See https://x.example</p>' }, '/description'],
  ['selasar', { highlights: ['one'] }, '/highlights'],
  ['selasar', { highlights: Array(8).fill('h') }, '/highlights'],
  ['selasar', { contents: ['camera'] }, '/contents'],
  ['selasar', { images: ['wide'] }, '/images/0'],
  ['selasar', { price: { amount: '5.00', currency: 'SGD' } }, '/price'],
  ['selasar', { price: { amount: '199.00', currency: 'EUR' } }, '/price'],
  ['selasar', { parcel: { kilograms: 1 } }, '/parcel/centimetres'],
  ['selasar', { parcel: { centimetres: [1, 2, 3] } }, '/parcel/kilograms'],
  ['selasar', { sellerSku: 'C1/1' }, '/sellerSku'],
  ['selasar', { sellerSku: 'C1' }, '/sellerSku'],
  ['selasar', { sellerSku: 'USED-1' }, '/sellerSku'],
  ['selasar', { sale: { amount: '250.00', from: '2026-02-01', to: '2026-02-02' } }, '/sale/amount'],
  ['selasar', { sale: { amount: '150.00', from: '2026-02-03', to: '2026-02-02' } }, '/sale/to'],
  ['selasar', { sale: { amount: '150.00' } }, '/sale/from'],
  ['crateway', { product: 'nothing' }, '/product'],
  ['crateway', { note: 'x'.repeat(501), condition: 'good' }, '/note'],
  ['crateway', { note: 'forbidden' }, '/note'],
  ['crateway', { expires: null }, '/expires'],
  ['crateway', { expires: '2026-03-15' }, '/expires'],
  ['crateway', { product: 'CW4028', expires: null }, '/battery'],
  ['crateway', { tax: 'none' }, '/tax'],
  ['lotbarn', { entry: 'nothing' }, '/entry'],
  ['lotbarn', { comment: 'x'.repeat(241) }, '/comment'],
  ['lotbarn', { place: 'x'.repeat(61) }, '/place'],
  ['lotbarn', { photos: Array(3).fill('wide') }, '/photos'],
  ['lotbarn', { tiers: Array(4).fill({ from: 2, cents: 1 }) }, '/tiers'],
  [
    'lotbarn',
    {
      tiers: [
        { from: 5, cents: 9_000 },
        { from: 3, cents: 8_000 },
      ],
    },
    '/tiers/1',
  ],
  ['wallfolk', { title: 'x'.repeat(61) }, '/title'],
  ['wallfolk', { text: 'x'.repeat(1_001) }, '/text'],
  ['wallfolk', { artwork: 'wide' }, '/artwork/0'],
  ['wallfolk', { product: 'sofa' }, '/product'],
  ['wallfolk', { cents: 650 }, '/cents'],
  ['wallfolk', { tags: Array(16).fill('t') }, '/tags'],
  ['wallfolk', { scale: 5 }, '/scale'],
  ['shopfront', { handle: 'Not A Handle' }, '/handle'],
  ['shopfront', { title: 'x'.repeat(151) }, '/title'],
  ['shopfront', { search: { title: 'x'.repeat(66) } }, '/search/title'],
  ['shopfront', { search: { text: 'x'.repeat(156) } }, '/search/text'],
  ['shopfront', { compareAt: '50.00' }, '/compareAt'],
  ['shopfront', { images: Array(31).fill('wide') }, '/images'],
  ['shopfront', { collections: ['nowhere'] }, '/collections'],
  ['shopfront', { stock: { moon: 1 } }, '/stock'],
  [
    'shopfront',
    {
      variants: {
        axes: Array(4).fill({ name: 'x', values: ['a'] }),
        rows: [{ values: ['a', 'a', 'a', 'a'], number: '', stock: 1, cents: null }],
      },
    },
    '/variants/axes',
  ],
  [
    'shopfront',
    {
      variants: {
        axes: [{ name: 'x', values: Array.from({ length: 101 }, (_, index) => `v${index}`) }],
        rows: Array.from({ length: 101 }, (_, index) => ({
          values: [`v${index}`],
          number: '',
          stock: 1,
          cents: null,
        })),
      },
    },
    '/variants/rows',
  ],
  [
    'shopfront',
    { variants: { axes: [{ name: 'x', values: ['a'] }], rows: [{ values: ['b'], stock: 1 }] } },
    '/variants/rows/0',
  ],
] as [string, Data, string][])('%s refuses %j at %s', (name, part, pointer) => {
  const [market, data] = good[name] ?? [swishel, {}];
  const merged: Data = Object.fromEntries(Object.entries({ ...data, ...part }).filter(([, value]) => value !== null));
  expect(problems(market, merged)).toContain(pointer);
});

test('a seller’s number may stay on the listing that carries it', () => {
  const [market, data] = good.selasar ?? [selasar, {}];
  expect(problems(market, { ...data, sellerSku: 'USED-1' }, { ...look, own: '5' })).toEqual([]);
});

test('the caption of a post may change, its picture may not', () => {
  const listing = { data: { caption: 'a', picture: 'wide' } } as unknown as Parameters<
    NonNullable<Market['whyNotChange']>
  >[0];
  expect(glintfeed.whyNotChange?.(listing, { caption: 'b', picture: 'wide' })).toBeNull();
  expect(glintfeed.whyNotChange?.(listing, { caption: 'a', picture: 'square' })?.pointer).toBe('/picture');
});

test('who honours a key, who tells by himself, who answers with a bare sentence', () => {
  const all = Object.values(good).map(([market]) => market);
  const names = (fits: (market: Market) => boolean) => all.filter(fits).map((one) => one.name);
  expect(names((one) => one.honoursIdempotencyKey)).toEqual(['selasar', 'crateway', 'shopfront']);
  expect(names((one) => !one.hasWebhooks)).toEqual(['lanesend', 'lotbarn']);
  expect(names((one) => one.errors === 'sentence')).toEqual(['swishel', 'lanesend', 'wallfolk']);
  expect(names((one) => one.auth === 'oauth')).toEqual(['selasar', 'shopfront']);
  expect([lanesend, glintfeed, wallfolk].map((one) => one.firstRules.pacing.newPerDay)).toEqual([20, 25, 8]);
  expect(lanesend.firstRules.endsAfterDays).toBe(21);
});

describe('catalogues', () => {
  const all = products('X');

  test('barcodes and ISBNs have their check digit, and find one entry', () => {
    for (const one of all)
      for (const code of [one.gtin, one.isbn]) if (code) expect(withCheckDigit(code.slice(0, 12))).toBe(code);
    const film = all.find((one) => one.gtin);
    expect(findProducts(all, { gtin: film?.gtin ?? '' })).toEqual([film]);
    const book = all.find((one) => one.isbn);
    expect(findProducts(all, { isbn: book?.isbn ?? '' })).toEqual([book]);
    expect(findProducts(all, { gtin: '0' })).toEqual([]);
  });

  test('words find all entries that hold them, nothing finds nothing', () => {
    expect(findProducts(all, { name: 'brask k-2' }).map((one) => one.model)).toEqual([
      'Brask K-2 instruction manual',
      'K-2',
    ]);
    expect(findProducts(all, {})).toEqual([]);
  });

  test('past sales are the same each time, in order, of known conditions', () => {
    const [one] = all;
    if (!one) throw new Error('empty');
    const sales = pastSales(one, Date.UTC(2026, 0, 1), ['a', 'b']);
    expect(pastSales(one, Date.UTC(2026, 0, 1), ['a', 'b'])).toEqual(sales);
    expect(sales.length).toBeGreaterThan(20);
    expect(sales.map((sale) => sale.date)).toEqual([...sales.map((sale) => sale.date)].sort());
    expect(sales.every((sale) => ['a', 'b'].includes(sale.condition) && sale.cents > 0 && sale.quantity > 0)).toBe(
      true,
    );
    expect(presentOffers(one, ['a']).length).toBeGreaterThan(2);
  });
});
