import { Checks, dataOf, limitFor, listOf, numberOf, plainOf, textOf } from '../kit/checks';
import { labelFor } from '../kit/fees';
import type { Data, Json, Look, Market, Problem, Rules, Seller } from '../kit/types';
import { checkVariants } from '../kit/variants';
import { categories } from './categories';

const yesNo = (value: Json | undefined) => value === undefined || typeof value === 'boolean';

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    title: 75,
    description: 20_000,
    photos: 16,
    photoLongestSide: 600,
    note: 800,
    priceMin: 99,
    priceMax: 5_000_000,
    quantity: 9_999,
    axes: 2,
    combinations: 120,
    section: 40,
    handlingDays: 10,
    advertisingMax: 20,
    // What the marketplace itself suggests, in hundredths of a percent.
    advertisingSuggested: 640,
  },
  required: [
    'heading',
    'story',
    'category',
    'condition',
    'price',
    'stock',
    'pictures',
    'parcel',
    'terms.returns',
    'terms.postage',
  ],
  lists: {
    richText: [{ id: 'yes', label: 'Rich text' }],
    returns: [
      { id: 'none', label: 'No returns' },
      { id: 'buyer-14', label: '14 days, buyer pays' },
      { id: 'seller-30', label: '30 days, free' },
    ],
    postage: [
      { id: 'buyer-standard', label: 'Buyer pays, standard' },
      { id: 'buyer-tracked', label: 'Buyer pays, tracked' },
      { id: 'free', label: 'Free postage' },
    ],
  },
  conditions: [
    { id: 'brand-new', label: 'Brand new' },
    { id: 'opened', label: 'New, box opened' },
    { id: 'refined', label: 'Used, like new' },
    { id: 'used-fine', label: 'Used, fine' },
    { id: 'used', label: 'Used' },
    { id: 'broken', label: 'Not working' },
  ],
  noteForbiddenOn: ['brand-new', 'opened'],
  categories,
  fees: {
    listing: { amount: 25, freeLive: 150, perDays: 28 },
    commission: [
      { upTo: 200_000, rate: 1180 },
      { upTo: null, rate: 240 },
    ],
    byCategory: Object.fromEntries(
      categories
        .filter((one) => one.leaf)
        .flatMap((one): [string, number][] =>
          one.path[0] === 'Film' ? [[one.id, 800]] : one.path[0] === 'Books' ? [[one.id, 1400]] : [],
        ),
    ),
    payment: { rate: 0, fixed: 35 },
    advertisingField: 'advertising',
    labels: [
      { id: 's', label: 'Up to 500 g', upToGrams: 500, amount: 395 },
      { id: 'm', label: 'Up to 2 kg', upToGrams: 2_000, amount: 595 },
      { id: 'l', label: 'Up to 10 kg', upToGrams: 10_000, amount: 1_095 },
    ],
  },
  pacing: { perMinute: 1_200, newPerDay: 2_000 },
  renewDays: 28,
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/heading', data.heading, 1, limit('title'), 'The heading');
  checks.text('/story', data.story, 1, limit('description'), 'The story');
  if (/<(script|iframe|style|object|form)/i.test(textOf(data.story)))
    checks.say('/story', 'The story holds markup that is not allowed.');
  if (plainOf(textOf(data.story)) === '') checks.say('/story', 'The story is missing.');
  checks.category('/category', data.category, '/details', dataOf(data.details), now);
  const condition = dataOf(data.condition);
  checks.oneOf('/condition/grade', condition.grade, now.conditions, 'The condition', true);
  checks.text('/condition/note', condition.note ?? '', 0, limit('note'), 'The condition note');
  if (textOf(condition.note) && now.noteForbiddenOn.includes(textOf(condition.grade)))
    checks.say('/condition/note', 'New goods must not have a condition note.');
  const price = dataOf(data.price);
  checks.range(
    '/price/value',
    Math.round(Number(textOf(price.value)) * 100),
    limit('priceMin'),
    limit('priceMax'),
    'The price in cents',
  );
  if (price.currency !== now.currency) checks.say('/price/currency', `Prices are in ${now.currency}.`);
  checks.range('/stock', data.stock, 0, limit('quantity'), 'The stock');
  checks.pictures('/pictures', listOf(data.pictures), look, {
    min: 1,
    max: limit('photos'),
    longest: limit('photoLongestSide'),
  });
  const parcel = dataOf(data.parcel);
  if (!(numberOf(parcel.pounds) > 0)) checks.say('/parcel/pounds', 'The weight in pounds is missing.');
  const terms = dataOf(data.terms);
  checks.oneOf('/terms/returns', terms.returns, now.lists.returns ?? [], 'The return profile', true);
  checks.oneOf('/terms/postage', terms.postage, now.lists.postage ?? [], 'The postage profile', true);
  if (terms.handlingDays !== undefined && terms.handlingDays !== null)
    checks.range('/terms/handlingDays', terms.handlingDays, 1, limit('handlingDays'), 'The days of handling');
  if (data.advertisingPercent !== undefined)
    checks.range('/advertisingPercent', data.advertisingPercent, 0, limit('advertisingMax'), 'The advertising rate');
  if (!yesNo(terms.collection)) checks.say('/terms/collection', 'Collection is yes or no.');
  checks.text('/section', data.section ?? '', 0, limit('section'), 'The section');
  checks.text('/reference', data.reference ?? '', 0, 40, 'The reference');
  checkVariants(checks, '/versions', data.versions, now);
  return checks.problems;
}

export const hallowick: Market = {
  name: 'hallowick',
  title: 'Hallowick',
  line: 'everything for everyone, at a fixed price or by the clock',
  auth: 'oauth',
  honoursIdempotencyKey: true,
  errors: 'problem',
  hasWebhooks: true,
  paths: { listings: 'listings', photos: 'pictures' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.heading),
    text: textOf(data.story),
    price: Math.round(Number(textOf(dataOf(data.price).value)) * 100),
    quantity: numberOf(data.stock),
    reference: textOf(data.reference),
    photos: listOf(data.pictures),
  }),
  withQuantity: (data, quantity) => ({ ...data, stock: quantity }),
  whyNotEnd: (listing) =>
    listing.data.timedSale === true && listing.offers.length > 0 ? 'A timed sale with bids cannot be ended' : null,
  postageOf: (now, data) =>
    dataOf(data.terms).postage === 'free' ? 0 : labelFor(now, numberOf(dataOf(data.parcel).pounds) * 453.59237),
  feeOf: (now, total, data) => {
    const own = dataOf(now.fees.byCategory)[textOf(data.category)];
    const rate = typeof own === 'number' ? own : 1180;
    const lower = Math.min(total, 200_000);
    return Math.round((lower * rate) / 10_000) + Math.round(((total - lower) * 240) / 10_000) + 35;
  },
  variantsField: 'versions',
  firstSellers: { grainhouse: {} },
  look: { paper: '#f7f4ee', ink: '#28323c', accent: '#7a4b2a', font: 'Georgia, serif', wide: true },
};
