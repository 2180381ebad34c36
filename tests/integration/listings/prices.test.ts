import { and, count, eq, inArray } from 'drizzle-orm';
import * as mine from '../../../src/db/client';
import { listing, rate } from '../../../src/db/schema';
import { recheckForeign } from '../../../src/services/accounts/rules/recheck-foreign';
import { comesTo, publishItems, readyItem } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

type Line = {
  accountId: number;
  name: string;
  currency: string;
  price: number | null;
  how: string | null;
  rate: { millionths: number; date: string } | null;
  net: {
    net: number;
    postage: number;
    packaging: number;
    margin: number;
    returnOnCost: number;
    fees: { total: number };
  } | null;
  solved: { price: number; net: number } | null;
};
type Panel = {
  price: number;
  cost: number;
  quotes: { name: string; amount: number }[];
  box: string | null;
  perPound: number | null;
  lines: Line[];
};

afterAll(mine.closeDatabase);

const panel = async (id: number, query = ''): Promise<Panel> =>
  (await call<Panel>('GET', `/items/${id}/prices${query}`)).body;
const lineOn = (body: Panel, name: string): Line => {
  const found = body.lines.find((line) => line.name === name);
  if (!found) throw new Error(`no ${name}`);
  return found;
};
/** Hallowick takes 0.25 for a listing once a hundred and fifty are live there, as they may be by the tests before. */
const listingFee = async (): Promise<number> => {
  const live = and(
    eq(listing.accountId, await accountOf('Hallowick')),
    inArray(listing.state, ['live', 'changed', 'conflict']),
  );
  const [found] = await mine.database().select({ live: count() }).from(listing).where(live);
  return (found?.live ?? 0) >= 150 ? 25 : 0;
};
const camera = () => readyItem({ lengthMm: 190, widthMm: 130, heightMm: 120 });

test('per account: fees, net, margin, return; nothing where nothing can be bought', async () => {
  const item = await camera();
  const body = await panel(item.id);
  const hallowick = lineOn(body, 'Hallowick');
  // 11.8 % of price and label (14,900 + 595) + 0.35, packing 0.60, cost 50.00
  const fees = 1_828 + 35 + (await listingFee());
  expect(hallowick.net?.fees.total).toBe(fees);
  expect(hallowick.net?.net).toBe(14_900 - fees - 60 - 5_000);
  expect(lineOn(body, 'Oakhand').net?.fees.total).toBe(924 + 477 + 25 + 22);
  expect(body.lines.some((line) => line.name === 'Glintfeed')).toBe(false);
  expect(body.quotes.map((quote) => quote.name).sort()).toEqual(['Haulbee', 'Postline']);
  expect(body.box).toBe('Camera box');
  expect(body.perPound).toBeGreaterThan(0);
});

test('packing costs the box, what grows with the weight, and one’s own time: in every net, and in what a sale leaves', async () => {
  const shop = await accountOf('Hallowick');
  // Turned this way it fits into no box that is there already.
  const item = await readyItem({ lengthMm: 690, widthMm: 70, heightMm: 60 });
  const packingOn = async () => lineOn(await panel(item.id), 'Hallowick').net?.packaging;
  expect(await packingOn()).toBe(60);
  const tube = { name: 'Long tube', lengthMm: 720, widthMm: 100, heightMm: 100, grams: 350, cost: 240 };
  const { body } = await call<{ id: number }>('POST', '/boxes', tube);
  try {
    expect(await packingOn()).toBe(240);
    // 900 g and the tube's 350 g at 0.40 a kilogram are 0.50; six minutes of 15.00 an hour are 1.50.
    await call('PUT', '/settings', { packingPerKilo: 40, packingMinutes: 6, hourlyRate: 1_500 });
    expect(await packingOn()).toBe(240 + 50 + 150);
    await publishItems([item.id], [shop]);
    await comesTo(item.id, shop, 'live');
    const [there] = await marketListings('hallowick', item.sku);
    await control('hallowick', 'buy', { listing: there?.id, quantity: 1 });
    type Sales = { sales: { itemId: number | null; packing: number | null }[] };
    const sold = await until(
      async () => (await call<Sales>('GET', '/sales?limit=50')).body.sales.find((one) => one.itemId === item.id),
      (one) => one !== undefined,
    );
    expect(sold?.packing).toBe(440);
    expect((await call('PUT', '/settings', { hourlyRate: -1 })).status).toBe(422);
  } finally {
    await call('PUT', '/settings', { packingPerKilo: 0, packingMinutes: 0, hourlyRate: 0 });
    await call('DELETE', `/boxes/${body.id}`);
  }
  expect(await packingOn()).toBe(60);
}, 60_000);

test('a price can be tried without being kept', async () => {
  const item = await camera();
  const tried = await panel(item.id, '?price=20000');
  expect(lineOn(tried, 'Hallowick').price).toBe(20_000);
  expect((await panel(item.id)).price).toBe(14_900);
});

test.each([
  ['net', 5_000, 'none'],
  ['net', 5_000, 'ninety'],
  ['net', 9_999, 'ninetyNine'],
  ['margin', 3_000, 'whole'],
  ['return', 10_000, 'half'],
] as const)('the price for a wanted %s of %i, ending %s, nets it on every account', async (goal, amount, rounding) => {
  const item = await camera();
  const body = await panel(item.id, `?goal=${goal}&amount=${amount}&rounding=${rounding}`);
  // What is made on a base cannot leave that share of the price at any price.
  expect(body.lines.filter((line) => line.solved).length).toBeGreaterThan(body.lines.length - 2);
  for (const { accountId, currency, solved, rate } of body.lines) {
    if (!solved) continue;
    // Written for this account alone, it is asked for just so, and what it leaves is read back from its own line.
    await call('PUT', `/items/${item.id}/listings/${accountId}`, { field: 'price', value: solved.price });
    const there = (await panel(item.id)).lines.find((one) => one.accountId === accountId);
    expect(there?.price).toBe(solved.price);
    const net = there?.net;
    // An amount is wanted in the shop's own currency.
    const wanted = goal === 'net' && currency !== 'EUR' ? Math.round((amount * (rate?.millionths ?? 0)) / 1e6) : amount;
    const reached = goal === 'net' ? net?.net : goal === 'margin' ? net?.margin : net?.returnOnCost;
    expect(reached).toBeGreaterThanOrEqual(wanted - (goal === 'net' ? 0 : 1));
  }
});

test('a floor is never gone under, in whichever currency: it is an amount of the shop’s own', async () => {
  const item = await camera();
  const body = await panel(item.id, '?goal=net&amount=0&rounding=whole&floor=25000');
  const solved = body.lines.filter((line) => line.solved !== null);
  expect(solved.some((line) => line.currency === 'SGD')).toBe(true);
  for (const { currency, rate, solved: found } of solved) {
    const floor = currency === 'EUR' ? 25_000 : Math.round((25_000 * (rate?.millionths ?? 0)) / 1e6);
    expect(found?.price).toBeGreaterThanOrEqual(floor);
  }
});

test('floor and wanted net of a change of many are the shop’s own currency, too', async () => {
  const item = await camera();
  const selasar = await accountOf('Selasar');
  const where = { on: 'accounts', accounts: [selasar] };
  const edit = (what: unknown) =>
    call('POST', '/edits', {
      selection: { kind: 'items', ids: [item.id] },
      steps: [{ field: 'price', where, do: what }],
      send: false,
    });
  const line = async () => lineOn(await panel(item.id), 'Selasar');
  const inSgd = async (amount: number) => Math.round((amount * ((await line()).rate?.millionths ?? 0)) / 1e6);
  await edit({ verb: 'percent', basisPoints: -5_000, floor: 25_000 });
  // A cut never ends above what it was: the floor of 250 euros is far above half of it.
  const cut = await line();
  expect(cut.price).toBeLessThan(await inSgd(25_000));
  await edit({ verb: 'set', value: await inSgd(40_000) });
  await edit({ verb: 'percent', basisPoints: -5_000, floor: 25_000 });
  expect((await line()).price).toBe(await inSgd(25_000));
  await edit({ verb: 'solve', goal: 'net', amount: 6_000 });
  const left = (await line()).net?.net ?? 0;
  expect(left).toBeGreaterThanOrEqual(await inSgd(6_000));
  expect(left - (await inSgd(6_000))).toBeLessThan(10);
});

test('a new rate prices anew what is priced by it', async () => {
  const item = await readyItem({}, 1);
  const selasar = await accountOf('Selasar');
  const before = lineOn(await panel(item.id), 'Selasar');
  const database = mine.database();
  await database
    .insert(rate)
    .values({ base: 'EUR', currency: 'SGD', day: '2999-01-01', millionths: 3_000_000, readAt: new Date() });
  try {
    await recheckForeign();
    const after = lineOn(await panel(item.id), 'Selasar');
    expect(after.rate).toMatchObject({ date: '2999-01-01', millionths: 3_000_000 });
    expect(after.price).toBeGreaterThan((before.price ?? 0) * 1.5);
    const [row] = await database
      .select()
      .from(listing)
      .where(and(eq(listing.itemId, item.id), eq(listing.accountId, selasar)));
    expect(row?.wantedPrice).toBe(after.price);
  } finally {
    expect((await call('POST', '/rates/forget', { to: 'SGD', date: '2999-01-01' })).status).toBe(201);
  }
  expect(lineOn(await panel(item.id), 'Selasar').price).toBe(before.price);
});

test('Selasar’s price is in its own currency by a dated rate, and holds postage and fees', async () => {
  const item = await camera();
  const line = lineOn(await panel(item.id), 'Selasar');
  expect(line.currency).toBe('SGD');
  expect(line.rate?.date).toMatch(/^\d{4}-\d\d-\d\d$/);
  const converted = Math.round((14_900 * (line.rate?.millionths ?? 0)) / 1_000_000);
  const kept = (line.price ?? 0) - (line.net?.fees.total ?? 0) - (line.net?.postage ?? 0);
  expect(kept).toBeGreaterThanOrEqual(converted);
  expect(kept - converted).toBeLessThan(120);
  expect(valueFor(await previewOn(item.id, 'selasar'), 'price').how).toContain('holds postage and fees');
});

test('the carrier: the cheapest, the account’s, a template’s, one listing’s own; nothing of it is sent', async () => {
  const oakhand = await accountOf('Oakhand');
  // Small and light: Haulbee is the cheaper one within a kilogram, and a little box counts by its weight.
  const item = await readyItem({
    lengthMm: 90,
    widthMm: 60,
    heightMm: 40,
    weightGrams: 700,
    location: `Bench ${Date.now()}`,
  });
  await call('PUT', `/items/${item.id}/listings/${oakhand}`, { field: 'extra.postageProfile', value: 'free' });
  type Seen = Line & { carrier: string | null };
  const seen = async () => {
    const { carrier, net } = lineOn(await panel(item.id), 'Oakhand') as Seen; // the panel tells it
    return [carrier, net?.postage];
  };
  const { quotes } = await panel(item.id);
  const asked = (name: string) => quotes.find((one) => one.name === name)?.amount ?? 0;
  const [cheapest, dearer] = [...quotes].sort((a, b) => a.amount - b.amount);
  expect(dearer?.amount).toBeGreaterThan(cheapest?.amount ?? 0);
  expect(await seen()).toEqual([cheapest?.name, cheapest?.amount]);
  await publishItems([item.id], [oakhand]);
  await comesTo(item.id, oakhand, 'live');
  const idOf = (name?: string) => name?.toLowerCase() ?? '';
  const { body: template } = await call<{ id: number }>('POST', '/templates', {
    name: 'From the bench',
    conditions: [{ field: 'location', op: 'begins', value: 'Bench ' }],
    fields: { 'extra.carrier': dearer?.name ?? '' },
    accounts: [oakhand],
  });
  try {
    await call('PATCH', `/accounts/${oakhand}`, { defaults: { carrier: idOf(cheapest?.name) } });
    expect(await seen()).toEqual([dearer?.name, asked(dearer?.name ?? '')]);
    await call('DELETE', `/templates/${template.id}`);
    expect(await seen()).toEqual([cheapest?.name, cheapest?.amount]);
    await call('PATCH', `/accounts/${oakhand}`, { defaults: { carrier: idOf(dearer?.name) } });
    expect(await seen()).toEqual([dearer?.name, dearer?.amount]);
    await call('PUT', `/items/${item.id}/listings/${oakhand}`, { field: 'extra.carrier', value: idOf(cheapest?.name) });
    expect(await seen()).toEqual([cheapest?.name, cheapest?.amount]);
    // Filters and changes of many go by the same figure, and nothing waits to be sent.
    expect((await comesTo(item.id, oakhand, 'live'))?.state).toBe('live');
    const { body } = await call<{ changes?: unknown[]; listings?: unknown[] }>(
      'GET',
      `/unsent?account=${oakhand}&limit=100`,
    );
    expect(JSON.stringify(body)).not.toContain(item.sku);
    const [there] = await marketListings('oakhand', item.sku);
    expect(JSON.stringify(there)).not.toMatch(/haulbee|postline/i);
  } finally {
    await call('PATCH', `/accounts/${oakhand}`, { defaults: { carrier: null } });
    await call('DELETE', `/templates/${template.id}`);
  }
}, 60_000);

test('an account may add percent and an ending; a price of its own stands before that', async () => {
  const account = await accountOf('Lanesend');
  const item = await camera();
  const pricing = { mode: 'percent', basisPoints: 1_000, addPostage: false, rounding: 'ninety' };
  await call('PATCH', `/accounts/${account}`, { pricing });
  expect(lineOn(await panel(item.id), 'Lanesend').price).toBe(16_390);
  // A bulk change of the item's price reaches it through the same rule.
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'price', do: { verb: 'percent', basisPoints: -5_000 } }],
    send: false,
  });
  expect(lineOn(await panel(item.id), 'Lanesend').price).toBe(8_290);
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'price', value: 7_777 });
  expect(lineOn(await panel(item.id), 'Lanesend').price).toBe(7_777);
  await call('PATCH', `/accounts/${account}`, {
    pricing: { mode: 'same', basisPoints: 0, addPostage: false, rounding: 'none' },
  });
});

test('comparable sales: figures, distribution and present offers, over a window of choice', async () => {
  const item = await readyItem({ brand: 'Brask', model: 'K-2' });
  await call('POST', '/products/find', { accountId: await accountOf('Lotbarn'), itemIds: [item.id] });
  type Data = {
    statistics: { count: number; pieces: number; median: number; low: number; high: number } | null;
    distribution: { pieces: number }[];
    sales: { date: string }[];
    present: { count: number };
    conditions: string[];
  };
  const year = (await call<Data>('GET', `/items/${item.id}/comparables?days=365`)).body;
  const month = (await call<Data>('GET', `/items/${item.id}/comparables?days=30`)).body;
  expect(year.statistics?.count).toBeGreaterThan(month.statistics?.count ?? 0);
  expect(year.statistics?.low).toBeLessThanOrEqual(year.statistics?.median ?? 0);
  expect(year.statistics?.high).toBeGreaterThanOrEqual(year.statistics?.median ?? 0);
  expect(year.distribution.reduce((sum, bar) => sum + bar.pieces, 0)).toBeGreaterThanOrEqual(
    year.statistics?.pieces ?? 0,
  );
  expect(year.present.count).toBeGreaterThan(0);
  const condition = year.conditions.find((one) => one === 'complete');
  const some = (await call<Data>('GET', `/items/${item.id}/comparables?days=365&condition=${condition}`)).body;
  expect(some.sales.length).toBeLessThan(year.sales.length);
});

test('boxes, tariffs and rates over the interface', async () => {
  const box = { name: 'Test box', lengthMm: 100, widthMm: 100, heightMm: 100, grams: 20 };
  const { body } = await call<{ id: number }>('POST', '/boxes', box);
  expect((await call<{ boxes: { name: string }[] }>('GET', '/boxes')).body.boxes.map((one) => one.name)).toContain(
    'Test box',
  );
  expect((await call('DELETE', `/boxes/${body.id}`)).status).toBe(200);
  expect((await call('DELETE', `/boxes/${body.id}`)).status).toBe(404);
  expect((await call('POST', '/boxes', { ...box, lengthMm: -1 })).status).toBe(422);
  expect((await call<{ carriers: unknown[] }>('POST', '/postage/tariffs', {})).body.carriers).toHaveLength(2);
  const quote = (
    await call<{ quotes: { carrier: string; countedGrams: number }[] }>(
      'GET',
      '/postage?grams=500&lengthMm=400&widthMm=300&heightMm=200&band=far',
    )
  ).body.quotes;
  // 24,000 cm³ by 6000 and 5000
  expect(quote.find((one) => one.carrier === 'postline')?.countedGrams).toBe(4_000);
  expect(quote.find((one) => one.carrier === 'haulbee')?.countedGrams).toBe(4_800);
  const rates = (await call<{ rates: { to: string; date: string }[] }>('POST', '/rates', {})).body.rates;
  expect(rates.map((rate) => rate.to).sort()).toEqual(['GBP', 'SGD', 'USD']);
  const [sgd] = rates.filter((rate) => rate.to === 'SGD');
  const before = await call<{ rates: { to: string }[] }>('GET', '/rates');
  expect((await call('POST', '/rates/forget', sgd && { to: 'SGD', date: sgd.date })).status).toBe(201);
  expect((await call<{ rates: { to: string }[] }>('GET', '/rates')).body.rates).toHaveLength(
    before.body.rates.length - 1,
  );
  await call('POST', '/rates', {});
  expect((await call('POST', '/postage', { carrier: 'postline', grams: 800, paid: 450 })).status).toBe(201);
});
