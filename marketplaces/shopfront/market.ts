import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom } from '../kit/fees';
import { taxonomy } from '../kit/taxonomy';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';
import { checkVariants } from '../kit/variants';

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    title: 150,
    body: 100_000,
    photos: 30,
    photoSide: 200,
    tags: 250,
    tagLength: 60,
    handle: 100,
    searchTitle: 65,
    searchText: 155,
    vendor: 80,
    productType: 80,
    collections: 10,
    priceMin: 0,
    priceMax: 100_000_000,
    stock: 100_000,
    axes: 3,
    combinations: 100,
    valuePictures: 1,
  },
  required: ['title', 'handle', 'category', 'condition', 'price', 'images', 'stock'],
  lists: {
    richText: [{ id: 'yes', label: 'Rich text' }],
    collections: [
      { id: 'cameras', label: 'Cameras' },
      { id: 'lenses', label: 'Lenses' },
      { id: 'film', label: 'Film' },
      { id: 'darkroom', label: 'Darkroom' },
      { id: 'bench', label: 'From our bench' },
      { id: 'walls', label: 'For the wall' },
      { id: 'sale', label: 'Sale' },
    ],
    places: [
      { id: 'shop', label: 'Shop' },
      { id: 'store', label: 'Storeroom' },
    ],
  },
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'used', label: 'Used' },
    { id: 'defective', label: 'Defective' },
  ],
  noteForbiddenOn: [],
  categories: taxonomy({
    prefix: 'SF-',
    names: 0,
    traitNames: 0,
    most: 15,
    required: () => [],
    above: {
      cameras: 'Photography',
      lenses: 'Photography',
      film: 'Photography',
      darkroom: 'Photography',
      accessories: 'Photography',
      clothing: 'Everyday',
      home: 'Everyday',
      books: 'Paper and pictures',
      collectables: 'Everyday',
      art: 'Paper and pictures',
    },
  }),
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 0 }],
    byCategory: {},
    payment: { rate: 260, fixed: 30 },
    labels: [],
    monthly: 2_400,
  },
  pacing: { perMinute: 1_200, newPerDay: 5_000 },
  renewDays: null,
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/title', data.title, 1, limit('title'), 'The title');
  checks.text('/handle', data.handle, 1, limit('handle'), 'The handle');
  if (textOf(data.handle) && !/^[a-z0-9]+(-[a-z0-9]+)*$/.test(textOf(data.handle)))
    checks.say('/handle', 'The handle may hold only small letters, digits and single hyphens.');
  checks.text('/body', data.body ?? '', 0, limit('body'), 'The description');
  if (/<(script|iframe|style|object|form)/i.test(textOf(data.body)))
    checks.say('/body', 'The description holds markup that is not allowed.');
  checks.category('/category', data.category, '/facts', dataOf(data.facts), now);
  checks.oneOf('/condition', data.condition, now.conditions, 'The condition', true);
  if (textOf(data.price) === '') checks.say('/price', 'The price is missing.');
  const price = Math.round(Number(textOf(data.price)) * 100);
  checks.range('/price', price, limit('priceMin'), limit('priceMax'), 'The price in cents');
  if (data.compareAt !== undefined && !(Math.round(Number(textOf(data.compareAt)) * 100) > price))
    checks.say('/compareAt', 'The compare-at price must be above the price.');
  checks.pictures('/images', listOf(data.images), look, { min: 1, max: limit('photos'), longest: limit('photoSide') });
  checks.items('/tags', listOf(data.tags), limit('tags'), limit('tagLength'), 'tags');
  checks.text('/vendor', data.vendor ?? '', 0, limit('vendor'), 'The vendor');
  checks.text('/productType', data.productType ?? '', 0, limit('productType'), 'The product type');
  checks.text('/search/title', dataOf(data.search).title ?? '', 0, limit('searchTitle'), 'The search title');
  checks.text('/search/text', dataOf(data.search).text ?? '', 0, limit('searchText'), 'The search text');
  const collections = listOf(data.collections);
  if (collections.length > limit('collections'))
    checks.say('/collections', `At most ${limit('collections')} collections.`);
  for (const one of collections) checks.oneOf('/collections', one, now.lists.collections ?? [], 'The collection', true);
  if (Object.keys(dataOf(data.stock)).length === 0) checks.say('/stock', 'The place of the stock is missing.');
  for (const [place, count] of Object.entries(dataOf(data.stock))) {
    checks.oneOf('/stock', place, now.lists.places ?? [], 'The place', true);
    checks.range(`/stock/${place}`, count, 0, limit('stock'), 'The stock');
  }
  checkVariants(checks, '/variants', data.variants, now, listOf(data.images));
  return checks.problems;
}

const stockOf = (data: Data) =>
  Object.values(dataOf(data.stock)).reduce<number>((sum, count) => sum + (numberOf(count) || 0), 0);

export const shopfront: Market = {
  name: 'shopfront',
  title: 'Shopfront',
  line: 'your own shop, your own name over the door',
  auth: 'oauth',
  honoursIdempotencyKey: true,
  errors: 'problem',
  hasWebhooks: true,
  paths: { listings: 'products', photos: 'files' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.title),
    text: textOf(data.body),
    price: Math.round(Number(textOf(data.price)) * 100),
    quantity: stockOf(data),
    reference: textOf(data.stockNumber),
    photos: listOf(data.images),
  }),
  // A change names the places that it is of; stock at the others stays.
  merge: (data, part) => ({
    ...data,
    ...part,
    ...(part.stock === undefined || part.stock === null
      ? {}
      : { stock: { ...dataOf(data.stock), ...dataOf(part.stock) } }),
  }),
  // Sold from the first place that has any, and from the next when that is not enough.
  withQuantity: (data, quantity) => {
    let gone = stockOf(data) - quantity;
    const stock = Object.entries(dataOf(data.stock)).map(([place, count]): [string, number] => {
      const there = numberOf(count) || 0;
      const taken = Math.min(there, Math.max(0, gone));
      gone -= taken;
      return [place, there - taken];
    });
    return { ...data, stock: Object.fromEntries(stock) };
  },
  whyNotEnd: () => null,
  feeOf: (now, total) => feeFrom(now, total),
  variantsField: 'variants',
  firstSellers: { grainhouse: {} },
  look: { paper: '#fffdf9', ink: '#2a2622', accent: '#8a5a2b', font: 'Optima, sans-serif', wide: true },
};
