import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom } from '../kit/fees';
import { attribute, tree } from '../kit/tree';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';

const colour = attribute('Colour', ['Black', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Other']);

const categories = tree('p', [
  {
    name: 'Photo',
    leaves: {
      'Film cameras': [colour],
      Lenses: [attribute('Lens mount', null, false, 40)],
      'Film rolls': [],
      'Straps and bags': [colour],
      'Darkroom things': [],
      'Other photo things': [],
    },
  },
  { name: 'Reading', leaves: { Books: [], 'Manuals and guides': [], Magazines: [] } },
  { name: 'Home', leaves: { 'Pictures and prints': [colour], Decoration: [colour], Lamps: [colour] } },
]);

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: { title: 45, textMin: 8, text: 900, photos: 10, tags: 3, tagLength: 30, priceMin: 200, priceMax: 300_000 },
  required: ['name', 'text', 'category', 'grade', 'brand', 'cents', 'photos', 'postagePaidBy', 'weightClass'],
  lists: {
    brands: [
      'Brask',
      'Orvane',
      'Tessaly',
      'Quillon',
      'Velmar',
      'Marlow & Finch',
      'Fennick',
      'Kaskett',
      'Grainhouse',
      'Noctal',
      'Saltmark',
    ].map((name) => ({ id: name, label: name })),
    postagePaidBy: [
      { id: 'buyer', label: 'Buyer pays' },
      { id: 'seller', label: 'Seller pays' },
    ],
    weightClasses: [
      { id: 'feather', label: 'Up to 250 g' },
      { id: 'light', label: 'Up to 1 kg' },
      { id: 'solid', label: 'Up to 5 kg' },
      { id: 'heavy', label: 'Up to 15 kg' },
    ],
  },
  conditions: [
    { id: 'unused', label: 'Unused' },
    { id: 'hardly', label: 'Hardly used' },
    { id: 'fine', label: 'Fine' },
    { id: 'signs', label: 'Signs of use' },
    { id: 'tired', label: 'Tired' },
  ],
  noteForbiddenOn: [],
  categories,
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 900 }],
    byCategory: {},
    payment: { rate: 270, fixed: 40 },
    labels: [
      { id: 'feather', label: 'Up to 250 g', upToGrams: 250, amount: 280 },
      { id: 'light', label: 'Up to 1 kg', upToGrams: 1_000, amount: 450 },
      { id: 'solid', label: 'Up to 5 kg', upToGrams: 5_000, amount: 690 },
      { id: 'heavy', label: 'Up to 15 kg', upToGrams: 15_000, amount: 1_250 },
    ],
  },
  pacing: { perMinute: 900, newPerDay: 1_000 },
  renewDays: null,
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/name', data.name, 1, limit('title'), 'The name');
  checks.text('/text', data.text, limit('textMin'), limit('text'), 'The text');
  if (/<\/?[a-z][^>]*>/i.test(textOf(data.text))) checks.say('/text', 'The text must be plain.');
  const traits =
    typeof data.traits === 'object' && data.traits !== null && !Array.isArray(data.traits) ? data.traits : {};
  checks.category('/category', data.category, '/traits', traits, now);
  checks.oneOf('/grade', data.grade, now.conditions, 'The grade', true);
  if (data.brand !== 'none') checks.oneOf('/brand', data.brand, now.lists.brands ?? [], 'The brand', true);
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  checks.pictures('/photos', listOf(data.photos), look, { min: 1, max: limit('photos') });
  checks.items('/tags', listOf(data.tags), limit('tags'), limit('tagLength'), 'tags');
  checks.oneOf('/postagePaidBy', data.postagePaidBy, now.lists.postagePaidBy ?? [], 'Who pays the postage', true);
  checks.oneOf('/weightClass', data.weightClass, now.lists.weightClasses ?? [], 'The weight class', true);
  return checks.problems;
}

/** The prepaid label of its weight class. */
const labelOf = (now: Rules, data: Data): number =>
  numberOf(
    (Array.isArray(now.fees.labels) ? now.fees.labels.map(dataOf) : []).find((one) => one.id === data.weightClass)
      ?.amount,
  ) || 0;

export const pippet: Market = {
  name: 'pippet',
  title: 'Pippet',
  line: 'the flea market in your pocket',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'sentence',
  hasWebhooks: true,
  paths: { listings: 'things', photos: 'photos' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.name),
    text: textOf(data.text),
    price: numberOf(data.cents),
    quantity: data.gone === true ? 0 : 1,
    reference: textOf(data.myNumber),
    photos: listOf(data.photos),
  }),
  withQuantity: (data, quantity) => (quantity < 1 ? { ...data, gone: true } : data),
  whyNotEnd: (listing) =>
    listing.offers.length > 0 ? 'There is an open offer: answer it before you take this down.' : null,
  postageOf: (now, data) => (data.postagePaidBy === 'seller' ? 0 : labelOf(now, data)),
  feeOf: (now, total) => feeFrom(now, total),
  offersOf: () => ({ taken: true, declineBelow: null }),
  // On unless the seller switches it off.
  dropTo: (data, cents) => (data.priceDrops === false ? null : { ...data, cents }),
  labelOf: (now, data) => (data.postagePaidBy === 'seller' ? labelOf(now, data) : 0),
  firstSellers: { grainhouse: { title: 90 }, 'grainhouse-finds': {} },
  look: { paper: '#fff8f2', ink: '#33203a', accent: '#5b2d8c', font: 'Verdana, sans-serif', wide: false },
};
