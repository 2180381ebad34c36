import { Checks, dataOf, limitFor, listOf, numberOf, plainOf, textOf } from '../kit/checks';
import { feeFrom, labelFor } from '../kit/fees';
import { findProducts, products } from '../kit/products';
import type { RoutedMarket } from '../kit/routes';
import { taxonomy } from '../kit/taxonomy';
import { traits } from '../kit/traits';
import type { Data, Look, Problem, Rules, Seller } from '../kit/types';

const categories = taxonomy({
  prefix: 'SL',
  names: 2,
  traitNames: 2,
  otherValues: true,
  most: 8,
  required: (good) =>
    good.traits.filter((trait) => ['format', 'colour', 'material', 'language', 'size'].includes(trait)).slice(0, 2),
  above: {
    cameras: 'Electronics',
    lenses: 'Electronics',
    film: 'Electronics',
    darkroom: 'Electronics',
    accessories: 'Electronics',
    clothing: 'Fashion',
    home: 'Home and leisure',
    books: 'Home and leisure',
    collectables: 'Home and leisure',
    art: 'Home and leisure',
  },
});

const rate = { Electronics: 500, Fashion: 800, 'Home and leisure': 650 } as Record<string, number>;

const rules: Rules = {
  version: 1,
  currency: 'SGD',
  limits: {
    name: 110,
    description: 25_000,
    photos: 8,
    photoSide: 600,
    highlightsMin: 2,
    highlights: 7,
    highlightLength: 80,
    contents: 12,
    skuMin: 4,
    sku: 40,
    priceMin: 300,
    priceMax: 3_000_000,
    quantity: 10_000,
  },
  required: [
    'name',
    'brand',
    'category',
    'price',
    'quantity',
    'images',
    'highlights',
    'contents',
    'parcel',
    'sellerSku',
  ],
  lists: { richText: [{ id: 'yes', label: 'Rich text' }] },
  conditions: [
    { id: 'new', label: 'New' },
    { id: 'refurbished', label: 'Overhauled' },
    { id: 'used-a', label: 'Used, A' },
    { id: 'used-b', label: 'Used, B' },
    { id: 'used-c', label: 'Used, C' },
  ],
  noteForbiddenOn: [],
  categories,
  fees: {
    listing: null,
    commission: [{ upTo: null, rate: 650 }],
    byCategory: Object.fromEntries(
      categories.filter((one) => one.leaf).map((one): [string, number] => [one.id, rate[one.path[0] ?? ''] ?? 650]),
    ),
    payment: { rate: 210, fixed: 0 },
    // Postage out of the price, in SGD: every price holds it.
    labels: [
      { id: 'xs', label: 'Up to 100 g', upToGrams: 100, amount: 350 },
      { id: 's', label: 'Up to 500 g', upToGrams: 500, amount: 890 },
      { id: 'm', label: 'Up to 1 kg', upToGrams: 1_000, amount: 1_390 },
      { id: 'l', label: 'Up to 2 kg', upToGrams: 2_000, amount: 2_190 },
      { id: 'xl', label: 'Up to 5 kg', upToGrams: 5_000, amount: 4_490 },
      { id: 'xxl', label: 'Up to 20 kg', upToGrams: 20_000, amount: 12_900 },
    ],
  },
  pacing: { perMinute: 600, newPerDay: 500 },
  renewDays: null,
  review: { ms: 1_200 },
};

/** Product records that sellers share: who adopts one sells what it describes. */
const catalogue = products('SP');

/** Brand first; letters, digits and blanks; colour in round brackets, last. */
function nameProblem(name: string, brand: string, colour: string): string | null {
  const known = brand !== 'No brand';
  if (
    known &&
    !name.toLowerCase().startsWith(
      brand
        .toLowerCase()
        .replace(/[^\p{L}\p{N}]+/gu, ' ')
        .trim(),
    )
  )
    return 'The name must begin with the brand.';
  const main = name.replace(/ \([\p{L}\p{N} ]+\)$/u, '');
  if (/[^\p{L}\p{N} ]/u.test(main))
    return 'The name may hold only letters, digits and blanks, and the colour in round brackets last.';
  if (colour && !name.endsWith(`(${colour})`)) return 'The colour must stand last, in round brackets.';
  return null;
}

function validate(data: Data, now: Rules, seller: Seller, look: Look): Problem[] {
  const checks = new Checks();
  const limit = (name: string) => limitFor(now, seller, name);
  const details = dataOf(data.attributes);
  const colour = textOf(details[traits.colour.names[2].toLowerCase()]);
  checks.text('/name', data.name, 1, limit('name'), 'The name');
  const odd = textOf(data.name) ? nameProblem(textOf(data.name), textOf(data.brand), colour) : null;
  if (odd) checks.say('/name', odd);
  if (textOf(data.product)) {
    const record = catalogue.find((one) => one.id === data.product);
    if (!record) checks.say('/product', 'There is no such product record.');
    else if (record.brand.toLowerCase() !== textOf(data.brand).toLowerCase())
      checks.say('/product', `This product record is of ${record.brand}.`);
  }
  checks.text('/brand', data.brand, 1, 80, 'The brand');
  checks.text('/description', plainOf(textOf(data.description)), 1, limit('description'), 'The description');
  checks.noLinks('/description', data.description, 'The description');
  if (/<(script|iframe|style|object|form|img)/i.test(textOf(data.description)))
    checks.say('/description', 'The description holds markup that is not allowed.');
  checks.category('/category', data.category, '/attributes', details, now);
  checks.oneOf('/condition', data.condition, now.conditions, 'The condition', true);
  const highlights = listOf(data.highlights);
  if (highlights.length < limit('highlightsMin'))
    checks.say('/highlights', `At least ${limit('highlightsMin')} highlights are needed.`);
  checks.items('/highlights', highlights, limit('highlights'), limit('highlightLength'), 'highlights');
  for (const one of highlights) checks.plain('/highlights', one, 'A highlight');
  const contents = listOf(data.contents);
  if (contents.length < 1) checks.say('/contents', 'The package contents are missing.');
  checks.items('/contents', contents, limit('contents'), 80, 'contents');
  if (contents.some((line) => !/^\d{1,3} x \S/.test(line)))
    checks.say('/contents', 'Each line of the contents has the form 2 x Name.');
  checks.pictures('/images', listOf(data.images), look, {
    min: 1,
    max: limit('photos'),
    shortest: limit('photoSide'),
    narrow: 1,
    wide: 1,
  });
  const price = dataOf(data.price);
  const cents = Math.round(Number(textOf(price.amount)) * 100);
  checks.range('/price', cents, limit('priceMin'), limit('priceMax'), 'The price in cents');
  if (price.currency !== now.currency) checks.say('/price', `Prices are in ${now.currency}.`);
  const parcel = dataOf(data.parcel);
  if (!(numberOf(parcel.kilograms) > 0)) checks.say('/parcel/kilograms', 'The weight in kilograms is missing.');
  if (!Array.isArray(parcel.centimetres) || parcel.centimetres.length !== 3)
    checks.say('/parcel/centimetres', 'Length, width and height in centimetres are missing.');
  const kept =
    labelFor(now, numberOf(parcel.kilograms) * 1_000) + feeFrom(now, cents, { category: textOf(data.category) });
  if (cents > 0 && cents <= kept) checks.say('/price', 'The price must hold postage, commission and payment fee.');
  if (data.sale !== undefined) {
    const sale = dataOf(data.sale);
    const saleCents = Math.round(Number(textOf(sale.amount)) * 100);
    if (!(saleCents > 0 && saleCents < cents)) checks.say('/sale/amount', 'The sale price must be below the price.');
    for (const end of ['from', 'to'])
      if (Number.isNaN(Date.parse(textOf(sale[end]))))
        checks.say(`/sale/${end}`, 'A sale needs its first and its last day.');
    if (Date.parse(textOf(sale.from)) > Date.parse(textOf(sale.to)))
      checks.say('/sale/to', 'A sale ends after it begins.');
  }
  checks.range('/quantity', data.quantity, 0, limit('quantity'), 'The quantity');
  const number = textOf(data.sellerSku);
  if (!/^[A-Za-z0-9-]+$/.test(number) || number.length < limit('skuMin') || number.length > limit('sku'))
    checks.say('/sellerSku', 'The seller stock number has 4 to 40 letters, digits and hyphens.');
  const holder = look.taken(number);
  if (number && holder !== null && holder !== look.own)
    checks.say('/sellerSku', 'This seller stock number was used before and cannot be used again.');
  return checks.problems;
}

export const selasar: RoutedMarket = {
  name: 'selasar',
  title: 'Selasar',
  line: 'one mall, many shores',
  auth: 'oauth',
  honoursIdempotencyKey: true,
  errors: 'problem',
  hasWebhooks: true,
  switchesOff: true,
  paths: { listings: 'items', photos: 'images' },
  firstRules: rules,
  validate,
  summary: (data) => ({
    title: textOf(data.name),
    text: textOf(data.description),
    price: Math.round(Number(textOf(dataOf(data.price).amount)) * 100),
    quantity: numberOf(data.quantity),
    reference: textOf(data.sellerSku),
    photos: listOf(data.images),
  }),
  withQuantity: (data, quantity) => ({ ...data, quantity }),
  whyNotEnd: () => null,
  // From its first day through its last.
  priceAt: (data, _pieces, now) => {
    const sale = dataOf(data.sale);
    const isOn = Date.parse(textOf(sale.from)) <= now && now < Date.parse(textOf(sale.to)) + 86_400_000;
    return isOn ? Math.round(Number(textOf(sale.amount)) * 100) : null;
  },
  labelOf: (now, data) => labelFor(now, numberOf(dataOf(data.parcel).kilograms) * 1_000),
  feeOf: (now, total, data) => feeFrom(now, total, { category: textOf(data.category) }),
  review: (data) =>
    ['name', 'description', 'highlights']
      .filter((field) => /replica|counterfeit/i.test(JSON.stringify(data[field] ?? '')))
      .slice(0, 1)
      .map((field) => ({ pointer: `/${field}`, detail: 'Copies of other makers’ goods are not allowed.' })),
  // Shared product records that a seller may adopt.
  routes(app) {
    app.get('/products', (c) => {
      const { gtin, isbn, name } = c.req.query();
      return c.json({ products: findProducts(catalogue, { gtin, isbn, name }).slice(0, 20) });
    });
    app.get('/products/:id', (c) => {
      const found = catalogue.find((one) => one.id === c.req.param('id'));
      return found ? c.json(found) : c.json({ title: 'There is no such product' }, 404);
    });
  },
  paper: { '/products': 'Shared product records by gtin, isbn or name', '/products/{id}': 'One product record' },
  firstSellers: { grainhouse: {} },
  look: { paper: '#fffaf5', ink: '#3b1f1f', accent: '#b4442a', font: 'Tahoma, sans-serif', wide: true },
};
