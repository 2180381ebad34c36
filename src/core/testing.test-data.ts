import { emptyItemFields, type Item } from './item';
import type { AccountContext, Synonyms } from './listing';
import { noAllowance } from './measure';
import { samePricing } from './price';
import { compileRules, type MarketRules } from './rules';

export const noSynonyms: Synonyms = { names: {}, values: {} };

/** A complete used camera, to be varied by tests. */
export const sampleItem = (part: Partial<Item> = {}): Item => ({
  ...emptyItemFields,
  id: 1,
  version: 1,
  currency: 'EUR',
  placings: {},
  looks: {},
  sku: 'C1-100',
  title: 'Brask K-2 black 35 mm SLR film camera with 50 mm lens, 1970s',
  brand: 'Brask',
  model: 'K-2',
  category: 'cameras/slr',
  condition: 'very-good',
  conditionNote: 'Light brassing.',
  description: '<p>Checked with a test film.</p><ul><li>Body</li><li>Lens</li></ul>',
  keywords: ['film camera', 'Film Cameras', 'slr', 'analogue'],
  attributes: { 'Film format': '35 mm', Colour: 'black' },
  price: 14_900,
  cost: 5_000,
  quantity: 1,
  weightGrams: 900,
  standing: 'active',
  clip: '',
  elsewhere: {},
  photos: [{ hash: 'a'.repeat(64), width: 1_200, height: 900 }],
  ...part,
});

/** Rules that use every part of the form, to be varied by tests. */
export const sampleRules = (part: Partial<MarketRules> = {}): MarketRules => ({
  market: 'sample',
  name: 'Sample',
  version: 1,
  currency: 'EUR',
  title: { max: 45 },
  brand: { required: true, values: ['Brask', 'Orvane'], none: 'none' },
  description: { format: 'plain', min: 8, max: 900 },
  highlights: null,
  photos: { min: 1, max: 3, minLongestSide: 600 },
  tags: { max: 2, maxLength: 20, letters: 'words' },
  price: { min: 200, max: 300_000 },
  sku: null,
  product: null,
  category: 'needed',
  quantity: { max: 1 },
  weight: { required: true },
  size: null,
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'used', label: 'Used' },
  ],
  conditionMap: {
    new: 'new',
    'new-open': 'new',
    mint: 'used',
    excellent: 'used',
    'very-good': 'used',
    good: 'used',
    fair: 'used',
    poor: 'used',
    parts: null,
  },
  conditionNote: { max: 40, forbiddenOn: ['new'] },
  extras: [
    {
      id: 'postage',
      label: 'Postage',
      type: 'choice',
      required: true,
      values: [
        { id: 'free', label: 'Free' },
        { id: 'buyer', label: 'Buyer pays' },
      ],
      maxLength: null,
      maxItems: null,
      fallback: null,
    },
  ],
  sellerPaysWhen: { field: 'extra.postage', value: 'free' },
  categories: [
    { id: '1', name: 'Cameras', path: ['Cameras'], leaf: false, attributes: [] },
    {
      id: '11',
      name: 'Film SLR cameras',
      path: ['Cameras', 'Film SLR cameras'],
      leaf: true,
      attributes: [
        { id: 'format', label: 'Film format', required: true, values: ['35 mm', '120'], maxLength: 60 },
        { id: 'colour', label: 'Colour', required: false, values: ['Black', 'Silver'], maxLength: 60 },
      ],
    },
    { id: '12', name: 'Books', path: ['Books'], leaf: true, attributes: [] },
  ],
  fees: {
    listing: { amount: 25, freeLive: 2, perDays: 28 },
    commission: [
      { upTo: 200_000, rate: 1_180 },
      { upTo: null, rate: 240 },
    ],
    commissionByCategory: { '12': 1_400 },
    payment: { rate: 0, fixed: 35 },
    labels: [
      { id: 's', label: 'Small', upToGrams: 500, amount: 395 },
      { id: 'm', label: 'Middle', upToGrams: 2_000, amount: 595 },
    ],
  },
  pacing: { perMinute: 600, newPerDay: 100 },
  renewDays: 28,
  ...part,
});

export const sampleAccount = (
  rules: MarketRules = sampleRules(),
  part: Partial<AccountContext> = {},
): AccountContext => ({
  id: 7,
  name: 'Sample',
  compiled: compileRules(rules),
  defaults: { postage: 'buyer' },
  categoryMap: { 'cameras/slr': '11' },
  synonyms: noSynonyms,
  maps: {},
  products: {},
  templates: [],
  footer: '',
  houseTag: '',
  pricing: samePricing,
  rate: null,
  packaging: noAllowance,
  packing: { perParcel: 60, perKilo: 0, minutes: 0, hourly: 0 },
  parcels: { boxes: [], tariffs: [] },
  today: '2026-03-02',
  ...part,
});
