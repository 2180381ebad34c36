import { Checks, limitFor, listOf, textOf } from '../kit/checks';
import { taxonomy } from '../kit/taxonomy';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: { caption: 1_800, photos: 1, photoSide: 320, hashtags: 24, hashtagLength: 40, narrow: 80, wide: 191 },
  required: ['caption', 'picture'],
  lists: {},
  conditions: [],
  noteForbiddenOn: [],
  categories: taxonomy({ prefix: 'g', names: 2, traitNames: 0, most: 3, required: () => [] }),
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 0 }],
    byCategory: {},
    payment: { rate: 0, fixed: 0 },
    labels: [],
  },
  pacing: { perMinute: 300, newPerDay: 25 },
  renewDays: null,
  searches: {
    filmphotography: 18_200,
    analogphotography: 12_900,
    camera: 11_800,
    vintage: 10_400,
    filmcamera: 9_100,
    '35mm': 8_800,
    leathercraft: 6_100,
    handmade: 5_900,
    darkroom: 4_200,
    blackandwhite: 4_000,
    harbour: 2_500,
    rangefinder: 2_300,
    slr: 2_200,
  },
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/caption', data.caption, 1, limit('caption'), 'The caption');
  checks.plain('/caption', data.caption, 'The caption');
  checks.pictures('/picture', textOf(data.picture) ? [textOf(data.picture)] : [], look, {
    min: 1,
    max: 1,
    shortest: limit('photoSide'),
    narrow: limit('narrow') / 100,
    wide: limit('wide') / 100,
  });
  const hashtags = listOf(data.hashtags);
  checks.items('/hashtags', hashtags, limit('hashtags'), limit('hashtagLength'), 'hashtags');
  if (hashtags.some((tag) => !/^[\p{L}\p{N}_]+$/u.test(tag)))
    checks.say('/hashtags', 'Hashtags have no spaces and no signs.');
  if (data.topic !== undefined) checks.category('/topic', data.topic, '/topic', {}, now);
  return checks.problems;
}

export const glintfeed: Market = {
  name: 'glintfeed',
  title: 'Glintfeed',
  line: 'look, do not touch',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'problem',
  hasWebhooks: true,
  paths: { listings: 'posts', photos: 'uploads' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.caption).split('\n')[0] ?? '',
    text: textOf(data.caption),
    price: 0,
    quantity: 0,
    reference: textOf(data.note),
    photos: textOf(data.picture) ? [textOf(data.picture)] : [],
  }),
  withQuantity: (data) => data,
  whyNotEnd: () => null,
  whyNotChange: (listing, merged) =>
    listing.data.picture === merged.picture
      ? null
      : { pointer: '/picture', detail: 'The picture of a post cannot be changed.' },
  feeOf: () => 0,
  firstSellers: { grainhouse: {} },
  look: { paper: '#14110f', ink: '#efe9e1', accent: '#e0a84e', font: 'Gill Sans, sans-serif', wide: true },
};
