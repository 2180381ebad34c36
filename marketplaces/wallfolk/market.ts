import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { taxonomy } from '../kit/taxonomy';
import type { Data, Look, Market, Problem, Rules, Seller } from '../kit/types';
import { checkVariants, variantsOf } from '../kit/variants';

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    title: 60,
    text: 1_000,
    artworkSide: 2_400,
    tags: 15,
    tagLength: 30,
    scaleMin: 10,
    scaleMax: 100,
    axes: 2,
    combinations: 60,
    valuePictures: 1,
    prints: 24,
    priceMin: 500,
    priceMax: 100_000,
  },
  required: ['title', 'text', 'theme', 'artwork', 'product', 'ground', 'cents'],
  lists: {
    products: [
      {
        id: 'poster-a3',
        label: 'Poster A3',
        area: { widthMm: 297, heightMm: 420, widthPx: 3508, heightPx: 4961, safeMm: 5, bleedMm: 3 },
      },
      {
        id: 'print-40x50',
        label: 'Fine print 40 × 50 cm',
        area: { widthMm: 400, heightMm: 500, widthPx: 4724, heightPx: 5906, safeMm: 10, bleedMm: 0 },
      },
      {
        id: 'canvas-60x80',
        label: 'Canvas 60 × 80 cm',
        area: { widthMm: 600, heightMm: 800, widthPx: 4724, heightPx: 6299, safeMm: 0, bleedMm: 30, profile: 'p3' },
      },
      {
        id: 'card-set',
        label: 'Set of 6 cards',
        area: { widthMm: 148, heightMm: 105, widthPx: 3496, heightPx: 2480, safeMm: 4, bleedMm: 3 },
      },
      {
        id: 'mug',
        label: 'Mug',
        area: { widthMm: 200, heightMm: 85, widthPx: 2480, heightPx: 1054, safeMm: 4, bleedMm: 0 },
      },
      {
        id: 'tote',
        label: 'Tote bag',
        area: { widthMm: 260, heightMm: 300, widthPx: 2600, heightPx: 3000, safeMm: 5, bleedMm: 0 },
      },
    ],
    grounds: [
      { id: 'white', label: 'White', colour: '#ffffff' },
      { id: 'natural', label: 'Natural', colour: '#efe6d2' },
      { id: 'black', label: 'Black', colour: '#16161a' },
      { id: 'sea', label: 'Sea blue', colour: '#2f5f7a' },
    ],
    placements: [
      { id: 'centre', label: 'In the middle' },
      { id: 'top', label: 'Above the middle' },
      { id: 'full', label: 'Over the whole area' },
    ],
  },
  conditions: [],
  noteForbiddenOn: [],
  categories: taxonomy({
    prefix: 'W',
    names: 0,
    traitNames: 1,
    most: 3,
    required: (good) => (good.branch === 'art' ? ['subject'] : []),
  }),
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 0 }],
    byCategory: {},
    payment: { rate: 0, fixed: 0 },
    labels: [],
    // What Wallfolk keeps for making the product; the seller earns what is above it.
    bases: { 'poster-a3': 1_150, 'print-40x50': 2_400, 'canvas-60x80': 4_200, 'card-set': 780, mug: 690, tote: 940 },
    basisField: 'product',
  },
  pacing: { perMinute: 120, newPerDay: 8 },
  renewDays: null,
};

const baseOf = (now: Rules, product: string): number => numberOf(dataOf(now.fees.bases)[product]) || 0;

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  checks.text('/title', data.title, 1, limit('title'), 'The title');
  checks.text('/text', data.text, 1, limit('text'), 'The text');
  checks.plain('/text', data.text, 'The text');
  checks.category('/theme', data.theme, '/details', dataOf(data.details), now);
  checks.pictures('/artwork', textOf(data.artwork) ? [textOf(data.artwork)] : [], look, {
    min: 1,
    max: 1,
    longest: limit('artworkSide'),
  });
  checks.items('/tags', listOf(data.tags), limit('tags'), limit('tagLength'), 'tags');
  checks.pictures('/prints', listOf(data.prints), look, {
    min: 0,
    max: limit('prints'),
    longest: limit('artworkSide'),
  });
  checks.oneOf('/product', data.product, now.lists.products ?? [], 'The product', true);
  checks.oneOf('/ground', data.ground, now.lists.grounds ?? [], 'The ground colour', true);
  checks.oneOf('/placement', data.placement, now.lists.placements ?? [], 'The placement', false);
  if (data.scale !== undefined) checks.range('/scale', data.scale, limit('scaleMin'), limit('scaleMax'), 'The scale');
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  const base = baseOf(now, textOf(data.product));
  if (base && numberOf(data.cents) < base)
    checks.say('/cents', `The price must be at least the base price of ${base} cents.`);
  pieces(checks, data, now);
  return checks.problems;
}

/** What else the picture is printed on: combinations of their products and the products' grounds, each with its price. */
function pieces(checks: Checks, data: Data, now: Rules): void {
  checkVariants(checks, '/pieces', data.pieces, now, listOf(data.prints));
  const { axes } = dataOf(data.pieces);
  for (const [index, axis] of (Array.isArray(axes) ? axes.map(dataOf) : []).entries()) {
    const list = textOf(axis.name) === 'Product' ? now.lists.products : now.lists.grounds;
    for (const value of listOf(axis.values))
      if (!list?.some((one) => one.label === value))
        checks.say(`/pieces/axes/${index}`, `The product or ground “${value}” is not made here.`);
  }
  for (const [index, row] of variantsOf({ variantsField: 'pieces' }, data).entries()) {
    const base = baseOf(now, now.lists.products?.find((one) => row.values.includes(one.label))?.id ?? '');
    if (base && (row.cents ?? numberOf(data.cents)) < base)
      checks.say(`/pieces/rows/${index}`, `The price must be at least the base price of ${base} cents.`);
  }
}

export const wallfolk: Market = {
  name: 'wallfolk',
  title: 'Wallfolk',
  line: 'your picture on our things',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'sentence',
  hasWebhooks: true,
  takesPng: true,
  variantsField: 'pieces',
  paths: { listings: 'designs', photos: 'artworks' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.title),
    text: textOf(data.text),
    price: numberOf(data.cents),
    // Made to order: there are always enough.
    quantity: data.off === true ? 0 : 99,
    reference: textOf(data.code),
    photos: listOf(data.prints).length ? listOf(data.prints) : textOf(data.artwork) ? [textOf(data.artwork)] : [],
  }),
  withQuantity: (data) => data,
  whyNotEnd: () => null,
  feeOf: (now, total, data) => Math.min(total, baseOf(now, textOf(data.product))),
  forVariant: (data, values) => {
    const product = rules.lists.products?.find((one) => values.includes(one.label));
    return product ? { ...data, product: product.id } : data;
  },
  firstSellers: { grainhouse: {} },
  look: { paper: '#fbf9ff', ink: '#241f33', accent: '#b03a62', font: 'Futura, sans-serif', wide: true },
};
