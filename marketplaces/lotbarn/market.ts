import { Checks, dataOf, limitFor, listOf, numberOf, textOf } from '../kit/checks';
import { feeFrom } from '../kit/fees';
import { findProducts, type Product, pastSales, presentOffers, products } from '../kit/products';
import type { RoutedMarket } from '../kit/routes';
import { categoryOf, taxonomy } from '../kit/taxonomy';
import type { Data, Look, Problem, Rules, Seller } from '../kit/types';
import { batchRoutes } from './batches';
import { contentsOf, formerNumbers, inFinishes, partEntries } from './outfits';

const categories = taxonomy({ prefix: 'B', names: 2, traitNames: 1, most: 5, required: () => [] });
type Entry = Product & { finishes?: string[] };
const entries = [...products('LB'), ...partEntries].map((one: Entry) => ({
  ...one,
  category: categoryOf(categories, one.kind, 2),
}));

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: {
    comment: 240,
    place: 60,
    photos: 2,
    tiers: 3,
    priceMin: 1,
    priceMax: 9_999_999,
    quantity: 9_999,
    batch: 1_500,
  },
  required: ['entry', 'finish', 'condition', 'cents', 'quantity'],
  lists: {
    finishes: [
      { id: 'chrome', label: 'Chrome' },
      { id: 'black', label: 'Black' },
      { id: 'colour', label: 'Coloured' },
      { id: 'plain', label: 'Plain' },
    ],
  },
  conditions: [
    { id: 'sealed', label: 'Sealed' },
    { id: 'complete', label: 'Complete' },
    { id: 'used', label: 'Used' },
    { id: 'parts', label: 'Parts only' },
  ],
  noteForbiddenOn: [],
  categories,
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 350 }],
    byCategory: {},
    payment: { rate: 290, fixed: 35 },
    labels: [],
  },
  pacing: { perMinute: 300, newPerDay: 5_000 },
  renewDays: null,
};

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  if (!entries.some((one) => one.id === data.entry)) checks.say('/entry', 'There is no such entry in the catalogue.');
  checks.oneOf('/finish', data.finish, now.lists.finishes ?? [], 'The finish', true);
  checks.oneOf('/condition', data.condition, now.conditions, 'The condition', true);
  checks.text('/comment', data.comment ?? '', 0, limit('comment'), 'The comment');
  checks.plain('/comment', data.comment, 'The comment');
  checks.text('/place', data.place ?? '', 0, limit('place'), 'The place');
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  checks.range('/quantity', data.quantity, 0, limit('quantity'), 'The quantity');
  checks.pictures('/photos', listOf(data.photos), look, { min: 0, max: limit('photos') });
  const tiers = Array.isArray(data.tiers) ? data.tiers.map(dataOf) : [];
  if (tiers.length > limit('tiers')) checks.say('/tiers', `At most ${limit('tiers')} quantity tiers.`);
  tiers.forEach((tier, index) => {
    const before = tiers[index - 1];
    const rising = numberOf(tier.from) > (before ? numberOf(before.from) : 1);
    const falling = numberOf(tier.cents) < (before ? numberOf(before.cents) : numberOf(data.cents));
    if (!rising || !falling)
      checks.say(`/tiers/${index}`, 'Each tier takes more pieces at a lower price than the one before.');
  });
  return checks.problems;
}

export const lotbarn: RoutedMarket = {
  name: 'lotbarn',
  title: 'Lotbarn',
  line: 'parts, lots and what is missing',
  auth: 'key',
  honoursIdempotencyKey: false,
  errors: 'problem',
  hasWebhooks: false,
  paths: { listings: 'lots', photos: 'lot-photos' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: entries.find((one) => one.id === data.entry)?.name ?? '',
    text: textOf(data.comment),
    price: numberOf(data.cents),
    quantity: numberOf(data.quantity),
    reference: textOf(data.reference),
    photos: listOf(data.photos),
  }),
  withQuantity: (data, quantity) => ({ ...data, quantity }),
  whyNotEnd: () => null,
  priceAt: (data, pieces) =>
    (Array.isArray(data.tiers) ? data.tiers.map(dataOf) : []).reduce<number | null>(
      (price, tier) => (pieces >= numberOf(tier.from) ? numberOf(tier.cents) : price),
      null,
    ),
  feeOf: (now, total) => feeFrom(now, total),
  writes: 'elsewhere',
  routes(app, tools) {
    batchRoutes(app, tools);
    const entry = (id: string) => entries.find((one) => one.id === id);
    const conditions = () => tools.world.rules(tools.market).conditions.map((one) => one.id);
    app.get('/entries', (c) => {
      const { gtin, isbn, name, ids } = c.req.query();
      if (ids !== undefined) {
        const wanted = new Set(ids.split(',').slice(0, 200));
        return c.json({ products: entries.filter((one) => wanted.has(one.id)) });
      }
      return c.json({ products: findProducts(entries, { gtin, isbn, name }).slice(0, 20) });
    });
    app.get('/entries/:id', (c) => {
      const found = entry(c.req.param('id'));
      return found ? c.json(found) : c.json({ title: 'There is no such entry' }, 404);
    });
    app.get('/entries/:id/sales', (c) => {
      const found = entry(c.req.param('id'));
      return c.json({ sales: found ? inFinishes(pastSales(found, tools.world.now(), conditions()), found) : [] });
    });
    app.get('/entries/:id/offers', (c) => {
      const found = entry(c.req.param('id'));
      return c.json({ offers: found ? inFinishes(presentOffers(found, conditions()), found) : [] });
    });
    app.get('/renumbered', (c) => c.json({ renumbered: formerNumbers }));
    app.get('/entries/:id/parts', (c) => {
      const found = entry(c.req.param('id'));
      return c.json({ parts: found ? contentsOf(found) : [] });
    });
  },
  paper: {
    '/batches': 'Lines of add, change and remove',
    '/entries': 'Catalogue entries by gtin, isbn or name, or up to 200 by their ids, separated by commas',
    '/renumbered': 'Numbers that entries had once, and those that they have now',
    '/entries/{id}/sales': 'Single past sales of an entry',
    '/entries/{id}/offers': 'Present offers of an entry',
    '/entries/{id}/parts': 'What a set is made of; a part that is a set itself is asked for in turn',
  },
  firstSellers: { grainhouse: {} },
  look: { paper: '#f6f4e8', ink: '#2c2a1a', accent: '#66701f', font: 'Courier New, monospace', wide: true },
};
