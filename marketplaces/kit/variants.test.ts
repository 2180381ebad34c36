import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hallowick } from '../hallowick/market';
import { oakhand } from '../oakhand/market';
import { shopfront } from '../shopfront/market';
import { Checks } from './checks';
import { buy } from './selling';
import { Store } from './store';
import type { Data, Json, Listing, Rules } from './types';
import { checkVariants, chosenVariant, variantsOf, withVariantSold } from './variants';
import { Deliverer } from './webhooks';
import { World } from './world';

const axes = [
  { name: 'Colour', values: ['black', 'tan'] },
  { name: 'Length', values: ['90', '110'] },
];
const row = (colour: string, length: string, stock = 2, cents: number | null = 4_200) => ({
  values: [colour, length],
  number: `${colour}-${length}`,
  stock,
  cents,
});
const all = [row('black', '90'), row('black', '110', 0), row('tan', '90', 5, null), row('tan', '110', 1)];
const limits = { ...shopfront.firstRules, limits: { axes: 2, combinations: 4 } } as Rules;
const problems = (value: Json, rules = limits) => {
  const checks = new Checks();
  checkVariants(checks, '/options', value, rules);
  return checks.problems.map((one) => one.pointer);
};

test('combinations that fit their axes are taken, and none at all', () => {
  expect(problems({ axes, rows: all })).toEqual([]);
  expect(problems(null)).toEqual([]);
});

test.each([
  ['no rows', { axes, rows: [] }, '/options'],
  ['no axes', { axes: [], rows: all }, '/options'],
  [
    'an axis without a name',
    { axes: [{ name: '', values: ['a'] }], rows: [{ values: ['a'], stock: 1 }] },
    '/options/axes/0',
  ],
  [
    'too many axes',
    { axes: [...axes, { name: 'Buckle', values: ['x'] }], rows: [{ values: ['tan', '90', 'x'], stock: 1 }] },
    '/options/axes',
  ],
  ['too many combinations', { axes, rows: [...all, row('tan', '110')] }, '/options/rows'],
  ['a value that no axis has', { axes, rows: [row('green', '90')] }, '/options/rows/0'],
  ['too few values', { axes, rows: [{ values: ['tan'], stock: 1 }] }, '/options/rows/0'],
  ['a combination twice', { axes, rows: [row('tan', '90'), row('tan', '90')] }, '/options/rows/1'],
  ['a stock below nothing', { axes, rows: [row('tan', '90', -1)] }, '/options/rows/0/stock'],
  ['a price of nothing', { axes, rows: [row('tan', '90', 1, 0)] }, '/options/rows/0/cents'],
] as [string, Json, string][])('%s is refused at %s', (_what, value, pointer) =>
  expect(problems(value)).toContain(pointer),
);

test.each([
  ['hallowick', hallowick, 2, 120],
  ['oakhand', oakhand, 2, undefined],
  ['shopfront', shopfront, 3, 100],
] as const)('%s publishes how many axes and combinations it takes', (_name, market, most, combinations) => {
  expect(market.variantsField).toBeTruthy();
  expect(market.firstRules.limits.axes).toBe(most);
  expect(market.firstRules.limits.combinations).toBe(combinations);
});

test('a buyer means a combination by its number, by its values, or takes the first that is there', () => {
  const variants = variantsOf(oakhand, { options: { axes, rows: all } });
  expect(chosenVariant(variants, 'tan-110', 1)?.values).toEqual(['tan', '110']);
  expect(chosenVariant(variants, 'tan / 90', 1)?.stock).toBe(5);
  expect(chosenVariant(variants, '', 3)?.values).toEqual(['tan', '90']);
  expect(chosenVariant(variants, 'green / 90', 1)).toBeUndefined();
  expect(chosenVariant(variants, '', 9)).toBeUndefined();
  expect(variantsOf(oakhand, {})).toEqual([]);
});

test('only the combination that was bought has fewer afterwards', () => {
  const data: Data = { options: { axes, rows: all }, amount: 8 };
  const [, , tan] = variantsOf(oakhand, data);
  if (!tan) throw new Error('not there');
  const after = variantsOf(oakhand, withVariantSold(oakhand, { data }, tan, 2));
  expect(after.map((one) => one.stock)).toEqual([2, 0, 3, 1]);
});

describe('buying', () => {
  let folder = '';
  let store: Store;
  let world: World;
  let listing: Listing;
  const now = () => world.listing('oakhand', listing.id) as Listing; // saved below
  const buys = (quantity: number, variant?: string) =>
    buy(world, new Deliverer(world), oakhand, now(), quantity, 'Marrowby', variant);

  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'netting-variants-'));
    store = new Store(join(folder, 'store'));
    world = new World(store, [oakhand], folder);
    await world.addSeller('oakhand', 's', 'p', {});
    listing = {
      id: '1',
      market: 'oakhand',
      seller: 's',
      state: 'live',
      data: { name: 'Strap', ownNumber: 'S-1', price: 39, amount: 8, options: { axes, rows: all } },
      createdAt: 0,
      updatedAt: 0,
      endedAt: null,
      renewsAt: null,
      endsAt: null,
      reviewAt: null,
      reasons: [],
      offers: [],
    };
    await world.saveListing(listing);
  });
  afterEach(async () => {
    await store.close();
    rmSync(folder, { recursive: true, force: true });
  });

  test('the combination’s own price counts, else the listing’s; the order says which it was', async () => {
    expect(await buys(1, 'tan / 110')).toMatchObject({
      unitPrice: 4_200,
      variant: { values: ['tan', '110'], number: 'tan-110' },
      reference: 'S-1',
    });
    expect(await buys(2, 'tan / 90')).toMatchObject({ unitPrice: 3_900, total: 7_800 });
    expect(oakhand.summary(now().data).quantity).toBe(5);
  });

  test('what is not there cannot be bought, and nothing changes', async () => {
    expect(await buys(1, 'black / 110')).toBe('Only 0 left of black, 110.');
    expect(await buys(1, 'green / 90')).toBe('Choose one of the variations.');
    expect(oakhand.summary(now().data).quantity).toBe(8);
  });

  test('the last piece of all ends the listing', async () => {
    await buys(2, 'black / 90');
    await buys(5, 'tan / 90');
    expect(now().state).toBe('live');
    await buys(1, 'tan / 110');
    expect(now().state).toBe('sold');
  });
});
