import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom } from '../kit/fees';
import { taxonomy } from '../kit/taxonomy';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    subject: 100,
    body: 5_000,
    photos: 12,
    keywords: 15,
    keywordLength: 40,
    place: 60,
    priceMin: 0,
    priceMax: 10_000_000,
    amount: 50,
  },
  required: ['subject', 'body', 'section', 'grade', 'cents', 'pictures', 'place', 'handover'],
  lists: {
    handovers: [
      { id: 'collect', label: 'Collected by the buyer' },
      { id: 'post', label: 'By post' },
      { id: 'both', label: 'Collected or by post' },
    ],
    weightClasses: [
      { id: 'letter', label: 'Letter, up to 500 g' },
      { id: 'packet', label: 'Packet, up to 2 kg' },
      { id: 'parcel', label: 'Parcel, up to 10 kg' },
      { id: 'freight', label: 'Freight, up to 31 kg' },
    ],
  },
  conditions: [
    { id: 'unused', label: 'Unused' },
    { id: 'good', label: 'Good' },
    { id: 'worn', label: 'Worn' },
    { id: 'defective', label: 'Defective' },
  ],
  noteForbiddenOn: [],
  categories: taxonomy({
    prefix: 'L',
    names: 1,
    traitNames: 1,
    most: 4,
    required: (good) => good.traits.filter((trait) => trait === 'language' || trait === 'wearer'),
    above: {
      cameras: 'Photo and film',
      lenses: 'Photo and film',
      film: 'Photo and film',
      darkroom: 'Photo and film',
      accessories: 'Photo and film',
    },
  }),
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 450 }],
    least: 50,
    when: { field: 'handover', values: ['post', 'both'] },
    byCategory: {},
    payment: { rate: 0, fixed: 0 },
    labels: [
      { id: 'letter', label: 'Letter, up to 500 g', upToGrams: 500, amount: 310 },
      { id: 'packet', label: 'Packet, up to 2 kg', upToGrams: 2_000, amount: 520 },
      { id: 'parcel', label: 'Parcel, up to 10 kg', upToGrams: 10_000, amount: 780 },
      { id: 'freight', label: 'Freight, up to 31 kg', upToGrams: 31_000, amount: 1_690 },
    ],
  },
  pacing: { perMinute: 300, newPerDay: 20 },
  renewDays: null,
  endsAfterDays: 21,
};

const posted = (data: Data) => data.handover === 'post' || data.handover === 'both';

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/subject', data.subject, 1, limit('subject'), 'The subject');
  checks.text('/body', data.body, 1, limit('body'), 'The text');
  checks.plain('/body', data.body, 'The text');
  checks.category('/section', data.section, '/features', dataOf(data.features), now);
  checks.oneOf('/grade', data.grade, now.conditions, 'The grade', true);
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  checks.range('/pieces', data.pieces ?? 1, 0, limit('amount'), 'The number of pieces');
  checks.pictures('/pictures', listOf(data.pictures), look, { min: 1, max: limit('photos') });
  checks.items('/keywords', listOf(data.keywords), limit('keywords'), limit('keywordLength'), 'keywords');
  checks.text('/place', data.place, 1, limit('place'), 'The place');
  checks.oneOf('/handover', data.handover, now.lists.handovers ?? [], 'The way of handing over', true);
  if (posted(data))
    checks.oneOf('/weightClass', data.weightClass, now.lists.weightClasses ?? [], 'The weight class', true);
  return checks.problems;
}

export const lanesend: Market = {
  name: 'lanesend',
  title: 'Lanesend',
  line: 'small ads from round the corner',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'sentence',
  hasWebhooks: false,
  paths: { listings: 'ads', photos: 'ad-pictures' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.subject),
    text: textOf(data.body),
    price: numberOf(data.cents),
    quantity: typeof data.pieces === 'number' ? data.pieces : 1,
    reference: textOf(data.mark),
    photos: listOf(data.pictures),
  }),
  withQuantity: (data, quantity) => ({ ...data, pieces: quantity }),
  whyNotEnd: () => null,
  postageOf: (now, data) =>
    posted(data)
      ? numberOf(
          (Array.isArray(now.fees.labels) ? now.fees.labels.map(dataOf) : []).find((one) => one.id === data.weightClass)
            ?.amount,
        ) || 0
      : 0,
  feeOf: (now, total, data) => feeFrom(now, total, { charged: posted(data) }),
  mayCollect: (data) => data.handover === 'collect' || data.handover === 'both',
  firstSellers: { grainhouse: {} },
  look: { paper: '#ffffff', ink: '#1d2733', accent: '#1f4e79', font: 'Arial, sans-serif', wide: false },
};
