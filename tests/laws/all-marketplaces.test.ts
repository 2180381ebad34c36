import fc from 'fast-check';
import { computeListing, textLength, titleVersions } from '../../src/core/listing';
import { roundings, roundTo } from '../../src/core/measure';
import { netOf, priceFor } from '../../src/core/price';
import { type MarketRules, marketRulesSchema } from '../../src/core/rules';
import { sampleItem } from '../../src/core/testing.test-data';
import { accountWith, rulesOfAll } from './rules-of-all.test-data';

let all: { market: string; name: string; rules: MarketRules }[] = [];
beforeAll(async () => {
  all = await rulesOfAll();
});

const word = fc.stringMatching(/^[A-Za-z0-9é]{1,12}$/);
const sign = fc.constantFrom(',', '–', '“x”', '(rare)', '*', '/', '100%', '<b>', '&amp;', '📷', 'http://a.example/b');
const words = fc.array(fc.oneof({ weight: 5, arbitrary: word }, { weight: 1, arbitrary: sign }), {
  minLength: 1,
  maxLength: 40,
});
const item = fc.record({
  title: words.map((some) => `Brask K-2 ${some.join(' ')}`),
  description: words.map((some) => `<p>${some.join(' ').replace(/</g, '&lt;')}</p><ul><li>One</li></ul>`),
  conditionNote: words.map((some) => some.slice(0, 8).join(' ')),
  keywords: fc.array(
    words.map((some) => some.slice(0, 3).join(' ')),
    { maxLength: 40 },
  ),
  highlights: fc.array(
    words.map((some) => some.slice(0, 12).join(' ')),
    { maxLength: 9 },
  ),
  price: fc.integer({ min: 1, max: 900_000 }),
  weightGrams: fc.integer({ min: 1, max: 20_000 }),
});
const each = (law: (rules: MarketRules, wild: ReturnType<typeof sampleItem>) => void) =>
  fc.assert(
    fc.property(item, (part) => {
      for (const { rules } of all) law(rules, sampleItem(part));
    }),
    { numRuns: 25 },
  );
const tell = (rules: MarketRules, wild: ReturnType<typeof sampleItem>) =>
  computeListing({ item: wild, overrides: {}, account: accountWith(rules) });

test('all eleven publish rules that fit the form', () => {
  expect(all.map((one) => one.name)).toEqual([
    'Hallowick',
    'Pippet',
    'Oakhand',
    'Swishel',
    'Lanesend',
    'Glintfeed',
    'Selasar',
    'Crateway',
    'Lotbarn',
    'Wallfolk',
    'Shopfront',
  ]);
  for (const { rules } of all) expect(marketRulesSchema.parse(rules)).toEqual(rules);
});

test('computing twice is the same', () => each((rules, wild) => expect(tell(rules, wild)).toEqual(tell(rules, wild))));

test('a fitted title never passes the limit, never loses the brand, never breaks a word', () =>
  each((rules, wild) => {
    const title = tell(rules, wild).content.title;
    if (!rules.title || typeof title !== 'string') return;
    expect(textLength(title)).toBeLessThanOrEqual(rules.title.max);
    expect(title).toContain('Brask');
    if (rules.title.pattern) return;
    const bare = (one: string) => one.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
    const known = new Set(wild.title.split(/\s+/).map(bare));
    const short = new Set([
      'mm',
      'cm',
      'in',
      '&',
      'w/',
      'w/o',
      'exp',
      'auto',
      'tele',
      'cond',
      'exc',
      'pc',
      'pcs',
      'blk',
      'ed',
      'srv',
    ]);
    for (const one of title.split(' ')) expect(known.has(bare(one)) || short.has(one.toLowerCase())).toBe(true);
  }));

test('nothing in the output of a plain-text marketplace is markup', () =>
  each((rules, wild) => {
    const { content } = tell(rules, wild);
    if (rules.description && rules.description.format !== 'rich')
      expect(String(content.description ?? '')).not.toMatch(/<\/?[a-z][^>]*>/i);
    if (rules.conditionNote?.plain) expect(String(content.conditionNote ?? '')).not.toMatch(/<\/?[a-z][^>]*>/i);
  }));

test('no text, tag or highlight passes its limit, and links are gone where they are forbidden', () =>
  each((rules, wild) => {
    const { content } = tell(rules, wild);
    if (rules.description && rules.description.counts !== 'seen')
      expect(textLength(String(content.description ?? ''))).toBeLessThanOrEqual(rules.description.max);
    if (rules.description?.links === false) expect(String(content.description ?? '')).not.toMatch(/https?:|<a\b/);
    const tags = Array.isArray(content.tags) ? content.tags.map(String) : [];
    expect(tags.length).toBeLessThanOrEqual(rules.tags?.max ?? 0);
    for (const tag of tags) expect(textLength(tag)).toBeLessThanOrEqual(rules.tags?.maxLength ?? 0);
    if (rules.tags?.letters === 'hashtag') for (const tag of tags) expect(tag).toMatch(/^[\p{L}\p{N}]+$/u);
    for (const line of Array.isArray(content.highlights) ? content.highlights : [])
      expect(textLength(String(line))).toBeLessThanOrEqual(rules.highlights?.maxLength ?? 0);
  }));

test('tags are never doubled by meaning', () =>
  each((rules, wild) => {
    const { content } = tell(rules, wild);
    const keys = (Array.isArray(content.tags) ? content.tags.map(String) : []).map((tag) => tag.toLowerCase());
    expect(new Set(keys).size).toBe(keys.length);
  }));

test('a weight is never told lighter than it is', () =>
  each((rules, wild) => {
    const { content } = tell(rules, wild);
    if (typeof content.weightGrams === 'number')
      expect(content.weightGrams).toBeGreaterThanOrEqual(wild.weightGrams ?? 0);
  }));

test('the solved price nets at least what was asked, and one step lower does not', () => {
  const wanted = fc.record({
    kind: fc.constantFrom('net' as const, 'margin' as const, 'return' as const),
    amount: fc.integer({ min: 0, max: 40_000 }),
    share: fc.integer({ min: 0, max: 6_000 }),
    cost: fc.integer({ min: 1, max: 60_000 }),
    grams: fc.integer({ min: 1, max: 12_000 }),
    rounding: fc.constantFrom(...Object.values(roundings)),
    sellerPays: fc.boolean(),
    floor: fc.integer({ min: 0, max: 5_000 }),
  });
  fc.assert(
    fc.property(wanted, ({ kind, amount, share, cost, grams, rounding, sellerPays, floor }) => {
      for (const { rules } of all) {
        const input = {
          fees: rules.fees,
          cost,
          categoryId: null,
          liveCount: 200,
          weightGrams: grams,
          longestMm: 200,
          values: { 'extra.ships': 'warehouse', 'extra.product': 'mug', 'extra.handover': 'post' },
          sellerPaysPostage: sellerPays,
          buyerPaysLabel: true,
          packaging: 60,
        };
        const goal = kind === 'net' ? { kind, amount } : { kind, basisPoints: share };
        const price = priceFor(input, goal, rounding, floor);
        if (price === null) continue;
        const reaches = (at: number) => {
          const net = netOf({ ...input, price: at });
          if (kind === 'net') return net.net >= amount;
          return net.net * 10_000 >= share * (kind === 'margin' ? net.price : cost);
        };
        expect(reaches(price)).toBe(true);
        expect(price).toBeGreaterThanOrEqual(floor);
        expect(roundTo(price, { ...rounding, direction: 'nearest' })).toBe(price);
        const lower = price - rounding.step;
        if (lower >= Math.max(floor, 1) && lower >= (rounding.ending || rounding.step))
          expect(reaches(lower)).toBe(false);
      }
    }),
    { numRuns: 60 },
  );
});

test('every way to say the title fits and keeps the brand', () => {
  fc.assert(
    fc.property(item, fc.integer({ min: 25, max: 130 }), (part, max) => {
      const versions = titleVersions(sampleItem(part), max);
      expect(versions.length).toBeLessThanOrEqual(3);
      for (const one of versions) {
        expect(textLength(one.text)).toBeLessThanOrEqual(max);
        expect(one.text).toContain('Brask');
      }
      expect(new Set(versions.map((one) => one.text.toLowerCase())).size).toBe(versions.length);
    }),
  );
});

test('fees are the ones of the table', () => {
  const of = (market: string) => {
    const found = all.find((one) => one.market === market)?.rules;
    if (!found) throw new Error(market);
    return found;
  };
  const total = (market: string, amount: number, values: Record<string, unknown> = {}, grams = 300) =>
    netOf({
      fees: of(market).fees,
      price: amount,
      cost: 0,
      categoryId: null,
      liveCount: 0,
      weightGrams: grams,
      longestMm: 200,
      values,
      sellerPaysPostage: false,
      packaging: 0,
    }).fees;
  expect(total('hallowick', 300_000)).toMatchObject({ commission: 23_600 + 2_400, payment: 35, listing: 0 });
  expect(total('pippet', 10_000)).toMatchObject({ commission: 900, payment: 310 });
  expect(total('oakhand', 10_000)).toMatchObject({ commission: 620, payment: 345, listing: 22 });
  expect(total('swishel', 10_000)).toMatchObject({ commission: 0, payment: 405 });
  expect(total('lanesend', 10_000, { 'extra.handover': 'post' })).toMatchObject({ commission: 450, payment: 0 });
  expect(total('lanesend', 400, { 'extra.handover': 'both' })).toMatchObject({ commission: 50 });
  expect(total('lanesend', 10_000, { 'extra.handover': 'collect' })).toMatchObject({ commission: 0 });
  expect(total('glintfeed', 10_000)).toMatchObject({ total: 0 });
  expect(total('selasar', 10_000)).toMatchObject({ commission: 650, payment: 210 });
  expect(total('crateway', 100)).toMatchObject({ commission: 35 });
  expect(total('crateway', 40_000)).toMatchObject({ commission: 4_200 + 800 });
  expect(total('crateway', 10_000, { 'extra.ships': 'warehouse' })).toMatchObject({ commission: 1_400, handling: 265 });
  expect(total('lotbarn', 10_000)).toMatchObject({ commission: 350, payment: 325 });
  expect(total('wallfolk', 5_000, { 'extra.product': 'print-40x50' })).toMatchObject({
    handling: 2_400,
    commission: 0,
  });
  expect(total('shopfront', 10_000)).toMatchObject({ commission: 0, payment: 290 });
  expect(of('shopfront').fees.monthly).toBe(2_400);
});

test.each([
  ['hallowick', { title: 75, photos: 16, quantity: 9_999 }],
  ['pippet', { title: 45, photos: 10, tags: 3, quantity: 1 }],
  ['oakhand', { title: 130, photos: 9, tags: 12 }],
  ['swishel', { title: null, photos: 5, tags: 6, text: 850 }],
  ['lanesend', { title: 100, photos: 12, tags: 15, text: 5_000 }],
  ['glintfeed', { title: null, photos: 1, tags: 24, text: 1_800 }],
  ['selasar', { title: 110, photos: 8 }],
  ['crateway', { title: null, photos: 0 }],
  ['lotbarn', { title: null, photos: 2 }],
  ['wallfolk', { title: 60, photos: 1, tags: 15, text: 1_000 }],
  ['shopfront', { title: 150, photos: 30 }],
])('the limits of %s arrive as they were published', (market, limits) => {
  const rules = all.find((one) => one.market === market)?.rules;
  const seen: Record<string, unknown> = {
    title: rules?.title?.max ?? null,
    photos: rules?.photos.max,
    tags: rules?.tags?.max,
    text: rules?.description?.max,
    quantity: rules?.quantity.max,
  };
  expect(seen).toMatchObject(limits);
});

test('the trees of the eight are deep enough to be real', () => {
  for (const { rules, market } of all) {
    if (['hallowick', 'pippet', 'oakhand'].includes(market)) continue;
    const leaves = rules.categories.filter((one) => one.leaf);
    expect(leaves.length).toBeGreaterThanOrEqual(60);
    if (market === 'glintfeed') continue;
    for (const leaf of leaves) {
      expect(leaf.attributes.length).toBeGreaterThanOrEqual(3);
      expect(leaf.attributes.length).toBeLessThanOrEqual(15);
    }
  }
});
