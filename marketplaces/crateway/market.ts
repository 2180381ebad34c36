import { Checks, limitFor, numberOf, textOf } from '../kit/checks';
import { feeFrom, handlingFor, storageFor } from '../kit/fees';
import { findProducts, offersWithDelivery, products } from '../kit/products';
import type { RoutedMarket } from '../kit/routes';
import { categoryOf, taxonomy } from '../kit/taxonomy';
import type { Data, Look, Problem, Rules, Seller } from '../kit/types';
import { feedRoutes } from './feeds';
import { inboundDeeds, inboundPart } from './inbound/control';
import { inboundRoutes } from './inbound/routes';

const categories = taxonomy({
  prefix: 'C',
  names: 1,
  traitNames: 0,
  most: 4,
  required: () => [],
  // Film grows old: the date stands on the box.
  demands: (good) => (good.branch === 'film' ? ['expires'] : good.traits.includes('power') ? ['battery'] : []),
});
const catalogue = products('CW').map((one) => ({ ...one, category: categoryOf(categories, one.kind, 1) }));

const rules: Rules = {
  version: 1,
  currency: 'EUR',
  limits: { note: 500, priceMin: 50, priceMax: 5_000_000, quantity: 99_999, expiryDays: 60, feedMs: 400 },
  required: ['product', 'condition', 'cents', 'quantity', 'ships', 'tax'],
  lists: {
    ships: [
      { id: 'self', label: 'The seller sends' },
      { id: 'warehouse', label: 'From the warehouse' },
    ],
    taxes: [
      { id: 'standard', label: 'Standard rate' },
      { id: 'reduced', label: 'Reduced rate, books' },
      { id: 'margin', label: 'Margin scheme, used goods' },
    ],
    batteries: [
      { id: 'none', label: 'No battery' },
      { id: 'inside', label: 'Battery inside' },
      { id: 'beside', label: 'Battery packed beside it' },
    ],
    hazards: [
      { id: 'none', label: 'Nothing hazardous' },
      { id: 'chemicals', label: 'Chemicals' },
    ],
  },
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'as-new', label: 'Used, as new' },
    { id: 'good', label: 'Used, good' },
    { id: 'acceptable', label: 'Used, acceptable' },
  ],
  noteForbiddenOn: ['new'],
  categories,
  fees: {
    listing: null,
    commission: [
      { upTo: 30_000, rate: 1_400 },
      { upTo: null, rate: 800 },
    ],
    least: 35,
    byCategory: {},
    payment: { rate: 0, fixed: 0 },
    labels: [],
    // When it leaves from the warehouse: by weight and longest side.
    handling: [
      { id: 'small', label: 'Small, up to 400 g', upToGrams: 400, upToMm: 250, amount: 265 },
      { id: 'middle', label: 'Middle, up to 2 kg', upToGrams: 2_000, upToMm: 450, amount: 480 },
      { id: 'large', label: 'Large, up to 12 kg', upToGrams: 12_000, upToMm: 900, amount: 890 },
      { id: 'bulky', label: 'Bulky', upToGrams: 40_000, upToMm: 2_000, amount: 1_950 },
    ],
    handlingWhen: { field: 'ships', value: 'warehouse' },
    storagePerLitreMonth: 3,
    // On top of that for what was sold elsewhere.
    handlingElsewhere: 90,
  },
  pacing: { perMinute: 600, newPerDay: 2_000 },
  renewDays: null,
};

const day = 86_400_000;

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  const product = catalogue.find((one) => one.id === data.product);
  if (!product) checks.say('/product', 'There is no such product in the catalogue.');
  checks.oneOf('/condition', data.condition, now.conditions, 'The condition', true);
  checks.text('/note', data.note ?? '', 0, limit('note'), 'The note');
  checks.plain('/note', data.note, 'The note');
  if (textOf(data.note) && now.noteForbiddenOn.includes(textOf(data.condition)))
    checks.say('/note', 'New goods must not have a note.');
  checks.range('/cents', data.cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  checks.range('/quantity', data.quantity, 0, limit('quantity'), 'The quantity');
  checks.oneOf('/ships', data.ships, now.lists.ships ?? [], 'Who sends', true);
  checks.oneOf('/tax', data.tax, now.lists.taxes ?? [], 'The tax code', true);
  const demands = now.categories.find((one) => one.id === product?.category)?.demands ?? [];
  checks.oneOf(
    '/battery',
    data.battery,
    now.lists.batteries ?? [],
    'The battery question',
    demands.includes('battery'),
  );
  checks.oneOf('/hazard', data.hazard, now.lists.hazards ?? [], 'The hazard question', false);
  const expires = Date.parse(textOf(data.expires));
  if (demands.includes('expires') && Number.isNaN(expires)) checks.say('/expires', 'The expiry date is missing.');
  else if (!Number.isNaN(expires) && expires < Math.floor(look.now / day) * day + limit('expiryDays') * day)
    checks.say('/expires', `The expiry date must be at least ${limit('expiryDays')} days ahead.`);
  return checks.problems;
}

/** The product, when it lies in the marketplace's warehouse. */
const stored = (data: Data) =>
  data.ships === 'warehouse' ? catalogue.find((one) => one.id === data.product) : undefined;
const handlingOf = (now: Rules, data: Data) => {
  const product = stored(data);
  return product ? handlingFor(now, product) : 0;
};

export const crateway: RoutedMarket = {
  name: 'crateway',
  title: 'Crateway',
  line: 'every product once, many who offer it',
  auth: 'key',
  honoursIdempotencyKey: true,
  errors: 'problem',
  hasWebhooks: true,
  paths: { listings: 'offers', photos: 'pictures' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: catalogue.find((one) => one.id === data.product)?.name ?? '',
    text: textOf(data.note),
    price: numberOf(data.cents),
    quantity: numberOf(data.quantity),
    reference: textOf(data.number),
    photos: [],
  }),
  withQuantity: (data, quantity) => ({ ...data, quantity }),
  whyNotEnd: () => null,
  feeOf: (now, total, data, pieces = 1) => feeFrom(now, total) + handlingOf(now, data) * pieces,
  storageOf: (now, data) => {
    const product = stored(data);
    return product ? storageFor(now, product, numberOf(data.quantity)) : 0;
  },
  writes: 'elsewhere',
  routes(app, tools) {
    feedRoutes(app, tools);
    inboundRoutes(
      app,
      tools,
      catalogue,
      (product) => rules.categories.find((one) => one.id === product.category)?.demands ?? [],
    );
    app.get('/catalogue', (c) => {
      const { gtin, isbn, name } = c.req.query();
      return c.json({ products: findProducts(catalogue, { gtin, isbn, name }).slice(0, 20) });
    });
    app.get('/catalogue/:id', (c) => {
      const found = catalogue.find((one) => one.id === c.req.param('id'));
      return found ? c.json(found) : c.json({ title: 'There is no such product' }, 404);
    });
    // What others offer of the same product, by condition and by who sends.
    app.get('/catalogue/:id/offers', (c) => {
      const product = catalogue.find((one) => one.id === c.req.param('id'));
      if (!product) return c.json({ title: 'There is no such product' }, 404);
      const same = tools.world
        .listings('crateway')
        .filter(
          (one) => one.state === 'live' && one.data.product === product.id && one.seller !== c.get('seller').name,
        );
      const here = same.map(({ data }) => ({
        cents: numberOf(data.cents),
        quantity: numberOf(data.quantity),
        condition: textOf(data.condition),
        ships: textOf(data.ships),
        delivery: textOf(data.ships) === 'warehouse' && numberOf(data.cents) >= 2_000 ? 0 : 299,
      }));
      const others = offersWithDelivery(
        product,
        rules.conditions.map((one) => one.id),
      );
      return c.json({ offers: [...here, ...others] });
    });
  },
  paper: {
    '/feeds': 'Lines of new, change and end; answered later',
    '/feeds/{id}': 'What came of each line',
    '/catalogue': 'Products by gtin, isbn or name',
    '/catalogue/{id}': 'One product',
    '/catalogue/{id}/offers': 'All offers on a product, with delivery',
    '/inbound/warehouses': 'The warehouses, whether they take goods in, and how large a box may be',
    '/inbound/plans': 'A plan for units: which go to which warehouse, and what that costs',
    '/inbound/plans/{id}': 'A plan',
    '/inbound/plans/{id}/take': 'Makes the shipments of a plan',
    '/inbound/shipments': 'Shipments',
    '/inbound/shipments/{id}': 'A shipment with its boxes, and what arrived',
    '/inbound/shipments/{id}/boxes': 'Tells the boxes: weights, sizes, contents',
    '/inbound/shipments/{id}/shipped': 'It is on its way, with tracking numbers',
    '/inbound/shipments/{id}/claims': 'Claims what is missing',
    '/inbound/stock': 'What lies in the warehouses, and what a month of it costs',
  },
  deeds: inboundDeeds,
  controlPart: inboundPart,
  firstSellers: { grainhouse: {} },
  look: { paper: '#f4f6f8', ink: '#1b2a38', accent: '#c05a12', font: 'Helvetica, sans-serif', wide: true },
};
