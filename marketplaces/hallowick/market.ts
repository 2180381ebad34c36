import { Checks, dataOf, limitFor, listOf, numberOf, plainOf, textOf } from '../kit/checks';
import { feeFrom, labelFor } from '../kit/fees';
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
    valuePictures: 1,
    timedDays: 10,
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

const isTimed = (data: Data): boolean => data.format === 'timed';

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
  checks.section(data.section, now, limit('section'));
  checks.text('/reference', data.reference ?? '', 0, 40, 'The reference');
  if (data.format !== undefined && data.format !== 'fixed' && data.format !== 'timed')
    checks.say('/format', 'It is sold at a fixed price or by the clock.');
  if (isTimed(data)) {
    const timed = dataOf(data.timed);
    checks.range('/timed/days', timed.days, 1, limit('timedDays'), 'The days of a timed sale');
    if (textOf(timed.reserve) && !(Number(timed.reserve) >= Number(textOf(price.value))))
      checks.say('/timed/reserve', 'The reserve must not lie under the start price.');
    if (data.stock !== 1 && data.stock !== 0) checks.say('/stock', 'A timed sale is of one piece.');
    if (data.versions !== undefined) checks.say('/versions', 'A timed sale has no versions.');
  }
  if (textOf(data.declineBelow) && !(Number(data.declineBelow) < Number(textOf(price.value))))
    checks.say('/declineBelow', 'Offers are declined under an amount below the price.');
  checkVariants(checks, '/versions', data.versions, now, listOf(data.pictures));
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
    isTimed(listing.data) && (listing.bids ?? []).length > 0 ? 'A timed sale with bids cannot be ended' : null,
  whyNotChange: (listing, merged) =>
    isTimed(listing.data) &&
    (listing.bids ?? []).length > 0 &&
    ['price', 'format', 'timed', 'stock'].some(
      (field) => JSON.stringify(merged[field]) !== JSON.stringify(listing.data[field]),
    )
      ? { pointer: '/timed', detail: 'A timed sale with bids keeps its price, its terms and its stock.' }
      : null,
  timedOf: (data) =>
    isTimed(data)
      ? {
          reserve: Math.round(Number(textOf(dataOf(data.timed).reserve) || 0) * 100),
          days: numberOf(dataOf(data.timed).days) || 7,
        }
      : null,
  offersOf: (data) => ({
    taken: data.offers === true && !isTimed(data),
    declineBelow: textOf(data.declineBelow) ? Math.round(Number(textOf(data.declineBelow)) * 100) : null,
  }),
  mayCollect: (data) => dataOf(data.terms).collection === true,
  labelOf: (now, data) =>
    dataOf(data.terms).postage === 'free' ? labelFor(now, numberOf(dataOf(data.parcel).pounds) * 453.59237) : 0,
  postageOf: (now, data) =>
    dataOf(data.terms).postage === 'free' ? 0 : labelFor(now, numberOf(dataOf(data.parcel).pounds) * 453.59237),
  feeOf: (now, total, data) => feeFrom(now, total, { category: textOf(data.category) }),
  variantsField: 'versions',
  firstSellers: {
    grainhouse: {
      lists: {
        sections: [
          { id: 'bodies', label: 'Bodies and outfits' },
          { id: 'glass', label: 'Glass' },
          { id: 'darkroom', label: 'For the darkroom' },
          { id: 'paper', label: 'Books and prints' },
        ],
      },
    },
  },
  look: { paper: '#f7f4ee', ink: '#28323c', accent: '#7a4b2a', font: 'Georgia, serif', wide: true },
};
