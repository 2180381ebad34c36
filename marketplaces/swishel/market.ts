import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom, labelFor } from '../kit/fees';
import { taxonomy } from '../kit/taxonomy';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';

const chips = (...names: string[]) => names.map((name) => ({ id: name.toLowerCase(), label: name }));

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    words: 850,
    photos: 5,
    photoSide: 640,
    hashtags: 6,
    hashtagLength: 30,
    colours: 2,
    styles: 3,
    priceMin: 100,
    priceMax: 200_000,
  },
  required: ['words', 'shelf', 'wear', 'cents', 'pics'],
  lists: {
    colours: chips('Black', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Grey', 'Yellow', 'Pink', 'Many'),
    ages: chips('New', '2010s', '2000s', '1990s', '1980s', '1970s', '1960s', '1950s', 'Older'),
    sources: chips('Second hand', 'Made by me', 'Reworked', 'Never used'),
    postage: [
      { id: 'included', label: 'In the price' },
      { id: 'extra', label: 'Buyer pays' },
    ],
    styles: chips('Analogue', 'Minimal', 'Street', 'Cosy', 'Seaside', 'Workshop', 'Loud'),
  },
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'lovely', label: 'As good as new' },
    { id: 'used', label: 'Used' },
    { id: 'well-used', label: 'Well used' },
  ],
  noteForbiddenOn: [],
  // One level and few questions: the young do not fill in forms.
  categories: taxonomy({
    prefix: 'sw',
    names: 2,
    traitNames: 2,
    most: 3,
    required: (good) => good.traits.filter((trait) => trait === 'size'),
  }),
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 0 }],
    byCategory: {},
    payment: { rate: 360, fixed: 45 },
    labels: [
      { id: 'small', label: 'Small, up to 1 kg', upToGrams: 1_000, amount: 420 },
      { id: 'large', label: 'Large, up to 10 kg', upToGrams: 10_000, amount: 890 },
    ],
  },
  pacing: { perMinute: 600, newPerDay: 1_000 },
  renewDays: null,
  searches: {
    filmphotography: 9_400,
    analogue: 8_100,
    vintagecamera: 7_700,
    camera: 6_900,
    shotonfilm: 5_200,
    '35mm': 5_000,
    leather: 3_900,
    handmade: 3_700,
    '1970s': 2_800,
    '1980s': 2_600,
    lens: 2_100,
    darkroom: 1_400,
    strap: 1_300,
    print: 1_100,
  },
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/words', data.words, 1, limit('words'), 'The text');
  checks.plain('/words', data.words, 'The text');
  checks.category('/shelf', data.shelf, '/facts', dataOf(data.facts), now);
  checks.oneOf('/wear', data.wear, now.conditions, 'The condition', true);
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  checks.pictures('/pics', listOf(data.pics), look, {
    min: 1,
    max: limit('photos'),
    shortest: limit('photoSide'),
    narrow: 1,
    wide: 1,
  });
  const hashtags = listOf(data.hashtags);
  checks.items('/hashtags', hashtags, limit('hashtags'), limit('hashtagLength'), 'hashtags');
  if (hashtags.some((tag) => !/^[\p{L}\p{N}_]+$/u.test(tag)))
    checks.say('/hashtags', 'Hashtags have no spaces and no signs.');
  const colours = listOf(data.colours);
  if (colours.length > limit('colours')) checks.say('/colours', `At most ${limit('colours')} colours.`);
  for (const colour of colours) checks.oneOf('/colours', colour, now.lists.colours ?? [], 'The colour', true);
  checks.oneOf('/age', data.age, now.lists.ages ?? [], 'The age', false);
  checks.oneOf('/source', data.source, now.lists.sources ?? [], 'The source', false);
  checks.oneOf('/postage', data.postage, now.lists.postage ?? [], 'Who pays the postage', true);
  const styles = listOf(data.styles);
  if (styles.length > limit('styles')) checks.say('/styles', `At most ${limit('styles')} styles.`);
  for (const style of styles) checks.oneOf('/styles', style, now.lists.styles ?? [], 'The style', true);
  return checks.problems;
}

export const swishel: Market = {
  name: 'swishel',
  title: 'Swishel',
  line: 'found it, wore it, passing it on',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'sentence',
  hasWebhooks: true,
  paths: { listings: 'finds', photos: 'pics' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.words).split('\n')[0] ?? '',
    text: textOf(data.words),
    price: numberOf(data.cents),
    quantity: data.gone === true ? 0 : 1,
    reference: textOf(data.myCode),
    photos: listOf(data.pics),
  }),
  withQuantity: (data, quantity) => (quantity < 1 ? { ...data, gone: true } : data),
  whyNotEnd: () => null,
  postageOf: (now, data) => (data.postage === 'included' ? 0 : labelFor(now, numberOf(data.grams) || 0)),
  labelOf: (now, data) => (data.postage === 'included' ? labelFor(now, numberOf(data.grams) || 0) : 0),
  feeOf: (now, total) => feeFrom(now, total),
  firstSellers: { grainhouse: {} },
  look: { paper: '#f3fbf6', ink: '#10302a', accent: '#0b7a63', font: 'Trebuchet MS, sans-serif', wide: false },
};
