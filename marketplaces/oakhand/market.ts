import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom } from '../kit/fees';
import { attribute, tree } from '../kit/tree';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';
import { checkVariants } from '../kit/variants';

const colour = attribute('Colour', ['Black', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Mixed']);

const categories = tree('oak-', [
  {
    name: 'Vintage cameras',
    leaves: {
      'Vintage film cameras': [
        colour,
        attribute('Film format', ['35 mm', '120', '110', 'Sheet 4×5', 'Instant', 'Other']),
      ],
      'Vintage lenses': [attribute('Lens mount', null, false, 40)],
      'Light meters and flashes': [colour],
    },
  },
  {
    name: 'Craft supplies',
    leaves: {
      'Photo film': [attribute('Film format', ['35 mm', '120', '110', 'Sheet 4×5', 'Instant', 'Other'], true)],
      'Darkroom supplies': [attribute('Material', null, false, 40)],
    },
  },
  {
    name: 'Handmade accessories',
    leaves: {
      'Camera straps': [attribute('Material', ['Leather', 'Cotton', 'Nylon', 'Hemp'], true), colour],
      'Camera bags': [attribute('Material', null, false, 40), colour],
    },
  },
  {
    name: 'Paper',
    leaves: {
      'Vintage books': [attribute('Language', ['English', 'German', 'French', 'Other'])],
      'Vintage manuals': [attribute('Language', ['English', 'German', 'French', 'Other'])],
    },
  },
  {
    name: 'Art',
    leaves: {
      'Photographic prints': [attribute('Width', null, false, 20), attribute('Height', null, false, 20)],
      Posters: [],
    },
  },
]);

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    title: 130,
    text: 8_000,
    photos: 9,
    photoLongestSide: 500,
    tags: 12,
    tagLength: 24,
    materials: 10,
    prompt: 200,
    clipSeconds: 15,
    priceMin: 20,
    priceMax: 5_000_000,
    quantity: 999,
    axes: 2,
  },
  required: [
    'name',
    'about',
    'category',
    'price',
    'amount',
    'pictureNumbers',
    'maker',
    'decade',
    'kind',
    'postageProfile',
    'returnProfile',
  ],
  lists: {
    makers: [
      { id: 'me', label: 'I made it' },
      { id: 'team', label: 'A member of my shop' },
      { id: 'other', label: 'Somebody else' },
    ],
    decades: [
      'made to order',
      '2020s',
      '2010s',
      '2000s',
      '1990s',
      '1980s',
      '1970s',
      '1960s',
      '1950s',
      '1940s',
      'before 1940',
    ].map((name) => ({ id: name, label: name })),
    kinds: [
      { id: 'finished', label: 'Finished thing' },
      { id: 'supply', label: 'Supply or tool' },
    ],
    postageProfiles: [
      { id: 'parcel', label: 'Parcel, buyer pays' },
      { id: 'letter', label: 'Letter, buyer pays' },
      { id: 'free', label: 'Free postage' },
    ],
    returnProfiles: [
      { id: 'no', label: 'No returns' },
      { id: 'fortnight', label: 'Within a fortnight' },
    ],
  },
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'vintage-fine', label: 'Vintage, fine' },
    { id: 'vintage-used', label: 'Vintage, used' },
    { id: 'vintage-worn', label: 'Vintage, worn' },
  ],
  noteForbiddenOn: [],
  categories,
  fees: {
    listing: { amount: 22, freeLive: 0, perDays: 100 },
    commission: [{ upTo: null, rate: 620 }],
    byCategory: {},
    payment: { rate: 320, fixed: 25 },
    labels: [],
  },
  pacing: { perMinute: 1_200, newPerDay: 2_000 },
  renewDays: 100,
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/name', data.name, 1, limit('title'), 'The name');
  checks.text('/about', data.about, 1, limit('text'), 'The text');
  if (/<\/?[a-z][^>]*>/i.test(textOf(data.about))) checks.say('/about', 'The text must be plain.');
  checks.category('/category', data.category, '/traits', dataOf(data.traits), now);
  checks.oneOf('/condition', data.condition, now.conditions, 'The condition', true);
  checks.range(
    '/price',
    Math.round(numberOf(data.price) * 100),
    limit('priceMin'),
    limit('priceMax'),
    'The price in cents',
  );
  checks.range('/amount', data.amount, 0, limit('quantity'), 'The amount');
  checks.pictures('/pictureNumbers', listOf(data.pictureNumbers), look, {
    min: 1,
    max: limit('photos'),
    longest: limit('photoLongestSide'),
  });
  const tags = listOf(data.tags);
  checks.items('/tags', tags, limit('tags'), limit('tagLength'), 'tags');
  if (tags.some((tag) => /[^\p{L}\p{N} -]/u.test(tag)))
    checks.say('/tags', 'Tags may hold only letters, digits, blanks and hyphens.');
  checks.items('/materials', listOf(data.materials), limit('materials'), 45, 'materials');
  checks.oneOf('/maker', data.maker, now.lists.makers ?? [], 'The maker', true);
  checks.oneOf('/decade', data.decade, now.lists.decades ?? [], 'The decade', true);
  checks.oneOf('/kind', data.kind, now.lists.kinds ?? [], 'The kind', true);
  checks.oneOf('/postageProfile', data.postageProfile, now.lists.postageProfiles ?? [], 'The postage profile', true);
  checks.oneOf('/returnProfile', data.returnProfile, now.lists.returnProfiles ?? [], 'The return profile', true);
  checks.section(data.section, now, 40);
  checks.text('/personalPrompt', data.personalPrompt ?? '', 0, limit('prompt'), 'The prompt');
  checks.clip(data.clip, look, limit('clipSeconds'));
  checkVariants(checks, '/options', data.options, now);
  return checks.problems;
}

export const oakhand: Market = {
  name: 'oakhand',
  title: 'Oakhand',
  line: 'made by hand, found in attics, bought to make things',
  auth: 'oauth',
  honoursIdempotencyKey: true,
  errors: 'problem',
  hasWebhooks: true,
  paths: { listings: 'shop/listings', photos: 'shop/pictures' },
  clips: 'shop/clips',
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.name),
    text: textOf(data.about),
    price: Math.round(numberOf(data.price) * 100),
    quantity: numberOf(data.amount),
    reference: textOf(data.ownNumber),
    photos: listOf(data.pictureNumbers),
  }),
  withQuantity: (data, quantity) => ({ ...data, amount: quantity }),
  whyNotEnd: () => null,
  feeOf: (now, total) => feeFrom(now, total),
  asksFor: (data) => textOf(data.personalPrompt),
  variantsField: 'options',
  firstSellers: { grainhouse: {} },
  look: { paper: '#fdfdf8', ink: '#2f3b2c', accent: '#3f6b3a', font: 'Palatino, serif', wide: true },
};
