import { publishItems, readyFilm, readyItem, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

type Offer = {
  id: number;
  itemId: number;
  amount: number;
  net: number;
  buyer: string;
  words: string;
  state: string;
  counter: number | null;
  deadline: string;
  answeredBy: string | null;
};
const offersOf = async (item: number, state = 'open') =>
  (await call<{ offers: Offer[] }>('GET', `/offers?item=${item}&state=${state}`)).body.offers;
const quantityOf = async (id: number) => (await call<{ quantity: number }>('GET', `/items/${id}/stock`)).body.quantity;
const answer = (offer: Offer | undefined, body: object) => call('POST', `/offers/${offer?.id}/answer`, body);

async function live(name: string, part: Record<string, unknown> = {}, own: Record<string, unknown> = {}) {
  const account = await accountOf(name);
  const item = await readyItem(part, 1);
  for (const [field, value] of Object.entries(own))
    await call('PUT', `/items/${item.id}/listings/${account}`, { field, value });
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  const market = name.toLowerCase();
  const [there] = await marketListings(market, item.sku);
  return { account, item, there, market };
}
const offered = (item: number) =>
  until(
    () => offersOf(item),
    (offers) => offers.length === 1,
  ).then(([one]) => one);

afterAll(async () => {
  await call('PUT', `/accounts/${await accountOf('Pippet')}/offers`, { acceptFrom: null, declineBelow: null });
});

test('an offer is heard with words and deadline, and accepted it is a sale everywhere', async () => {
  const { item, there } = await live('Pippet');
  const hallowick = await accountOf('Hallowick');
  await publishItems([item.id], [hallowick]);
  await until(
    () => stateOn(item.id, hallowick),
    (state) => state === 'live',
  );
  await control('pippet', 'offer', { listing: there?.id, amount: 12_000, words: 'Would you take 120?', hours: 5 });
  const offer = await offered(item.id);
  expect(offer).toMatchObject({ amount: 12_000, words: 'Would you take 120?', buyer: 'A buyer in Marrowby' });
  // 9 % and 2.7 % of the price, 0.40, the label that the seller pays here, packing 0.60, cost 50.00
  expect(offer?.net).toBe(12_000 - 1_080 - 324 - 40 - 450 - 60 - 5_000);
  expect(Date.parse(offer?.deadline ?? '')).toBeGreaterThan(Date.now());
  expect((await call<{ attention: number }>('GET', '/stages')).body.attention).toBeGreaterThan(0);

  expect((await answer(offer, { answer: 'accept' })).body).toEqual({ state: 'accepted' });
  await until(
    () => quantityOf(item.id),
    (quantity) => quantity === 0,
  );
  type Sale = { total: number; net: number };
  const [sale] = (await call<{ sales: Sale[] }>('GET', `/sales?item=${item.id}`)).body.sales;
  expect(sale).toMatchObject({ total: 12_000, net: offer?.net });
  await until(
    () => stateOn(item.id, hallowick),
    (state) => state === 'ended',
  );
  expect((await answer(offer, { answer: 'accept' })).status).toBe(409);
});

test('countered, the buyer may take it; declined, it is over; of two answers at once one counts', async () => {
  const { item, there, market } = await live('Pippet');
  await control(market, 'offer', { listing: there?.id, amount: 9_000 });
  const offer = await offered(item.id);
  expect((await answer(offer, { answer: 'counter', amount: 8_000 })).status).toBe(422);
  expect((await answer(offer, { answer: 'counter', amount: 13_000 })).body).toEqual({ state: 'countered' });
  const [countered] = await offersOf(item.id);
  expect(countered).toMatchObject({ state: 'countered', counter: 13_000 });
  const theirs = (await (await fetch(`${stack.markets}/control/api/pippet/offers`)).json()) as {
    id: string;
    listing: string;
  }[];
  await control(market, 'take-counter', { offer: theirs.find((one) => one.listing === there?.id)?.id });
  await until(
    () => quantityOf(item.id),
    (quantity) => quantity === 0,
  );

  const other = await live('Pippet');
  await control('pippet', 'offer', { listing: other.there?.id, amount: 5_000 });
  const second = await offered(other.item.id);
  const both = await Promise.all([answer(second, { answer: 'decline' }), answer(second, { answer: 'decline' })]);
  expect(both.map((one) => one.status).sort()).toEqual([201, 409]);
  expect(await offersOf(other.item.id)).toEqual([]);
  expect(await quantityOf(other.item.id)).toBe(1);
});

test('a rule takes what leaves enough and declines what leaves too little; between, a person is asked', async () => {
  const pippet = await accountOf('Pippet');
  const wrong = { acceptFrom: { kind: 'net', amount: 100 }, declineBelow: { kind: 'net', amount: 200 } };
  expect((await call('PUT', `/accounts/${pippet}/offers`, wrong)).status).toBe(422);
  await call('PUT', `/accounts/${pippet}/offers`, {
    acceptFrom: { kind: 'net', amount: 5_000 },
    declineBelow: { kind: 'margin', basisPoints: 1_000 },
  });
  const [good, middle, low] = [await live('Pippet'), await live('Pippet'), await live('Pippet')];
  await control('pippet', 'offer', { listing: good.there?.id, amount: 13_000 });
  await control('pippet', 'offer', { listing: middle.there?.id, amount: 9_000 });
  await control('pippet', 'offer', { listing: low.there?.id, amount: 6_000 });
  await until(
    () => quantityOf(good.item.id),
    (quantity) => quantity === 0,
  );
  const declined = await until(
    () => offersOf(low.item.id, 'all'),
    ([one]) => one?.state === 'declined',
  );
  expect(declined[0]?.answeredBy).toBe('Rule for offers');
  expect(await offered(middle.item.id)).toMatchObject({ state: 'open' });
});

test('where the marketplace declines by itself, what lies below waits for nobody', async () => {
  const { item, there } = await live('Hallowick', {}, { 'extra.offers': true, 'extra.declineBelow': 10_000 });
  expect(await control('hallowick', 'offer', { listing: there?.id, amount: 9_000 })).toMatchObject({
    state: 'declined',
  });
  await control('hallowick', 'offer', { listing: there?.id, amount: 11_000 });
  expect(await offered(item.id)).toMatchObject({ amount: 11_000 });
  // The other one is answered already, and waits for nobody.
  expect((await offersOf(item.id, 'all')).map((one) => [one.amount, one.state])).toEqual([
    [11_000, 'open'],
    [9_000, 'declined'],
  ]);
});

describe('a timed sale', () => {
  const timed = { 'extra.format': 'timed', 'extra.timedDays': 5, 'extra.reserve': 16_000 };
  type Column = { accountId: number; timed: { bids: number; highest: number | null; endsAt: string } | null };
  const saleOn = async (item: number, account: number) =>
    (await call<{ columns: Column[] }>('GET', `/items/${item}`)).body.columns.find((one) => one.accountId === account)
      ?.timed;

  test('its start price, reserve, end and bids are seen, and the plan says what it blocks', async () => {
    const { item, account, there } = await live('Hallowick', {}, timed);
    expect(await control('hallowick', 'buy', { listing: there?.id })).toMatchObject({
      error: expect.stringContaining('by the clock'),
    });
    expect(await control('hallowick', 'bid', { listing: there?.id, amount: 100 })).toHaveProperty('error');
    await control('hallowick', 'bid', { listing: there?.id, amount: 15_000 });
    expect(await control('hallowick', 'bid', { listing: there?.id, amount: 15_000 })).toHaveProperty('error');
    const seen = await until(
      () => saleOn(item.id, account),
      (sale) => sale?.bids === 1,
    );
    expect(seen).toMatchObject({ highest: 15_000, reserve: 16_000 });
    expect(Date.parse(seen?.endsAt ?? '') - Date.now()).toBeGreaterThan(4 * 86_400_000);

    const other = await readyItem({}, 1);
    for (const [field, value] of Object.entries(timed))
      await call('PUT', `/items/${other.id}/listings/${account}`, { field, value });
    type Plan = { knots: { why: string | null }[] };
    const selection = { kind: 'items', ids: [other.id] };
    const plan = (await call<Plan>('POST', '/publish/plan', { selection, accounts: [account] })).body;
    expect(plan.knots[0]?.why).toMatch(/Timed sale of 5 days: once somebody has bid/);
    // It cannot be ended now: a person hears why.
    await call('POST', '/listings/end', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'attention',
    );
  });

  test('who has bid most when its time has run out has bought it: a sale for what was bid, and nothing is left elsewhere', async () => {
    const { item, account, there } = await live('Hallowick', {}, timed);
    const pippet = await accountOf('Pippet');
    await publishItems([item.id], [pippet]);
    await until(
      () => stateOn(item.id, pippet),
      (state) => state === 'live',
    );
    await control('hallowick', 'bid', { listing: there?.id, amount: 15_000 });
    await control('hallowick', 'bid', { listing: there?.id, amount: 17_500 });
    expect(await control('hallowick', 'run-out', { listing: there?.id })).toMatchObject({ state: 'sold' });
    type Sale = { total: number; quantity: number; accountName: string };
    const [sale] = await until(
      async () => (await call<{ sales: Sale[] }>('GET', `/sales?item=${item.id}`)).body.sales,
      (sales) => sales.length === 1,
    );
    expect(sale).toMatchObject({ total: 17_500, quantity: 1, accountName: 'Hallowick' });
    await until(
      () => marketListings('pippet', item.sku),
      ([one]) => one?.state === 'ended',
    );
    expect(await stateOn(item.id, account)).toBe('sold');
  });

  test('bids that stay under the reserve end it unsold, and the item is still there to sell', async () => {
    const { item, account, there } = await live('Hallowick', {}, timed);
    await control('hallowick', 'bid', { listing: there?.id, amount: 15_000 });
    expect(await control('hallowick', 'run-out', { listing: there?.id })).toMatchObject({ state: 'ended' });
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'ended',
    );
    expect((await call<{ item: { quantity: number } }>('GET', `/items/${item.id}`)).body.item.quantity).toBe(1);
  });

  test('a reserve below the start price is refused before it is sent', async () => {
    const account = await accountOf('Hallowick');
    const item = await readyItem({}, 1);
    await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'extra.reserve', value: 100 });
    type Field = { field: string; issues: { message: string }[] };
    const { columns } = (await call<{ columns: { accountId: number; fields: Field[] }[] }>('GET', `/items/${item.id}`))
      .body;
    const field = columns.find((one) => one.accountId === account)?.fields.find((one) => one.field === 'extra.reserve');
    expect(field?.issues[0]?.message).toContain('must not be below the price');
  });
});

test('personalisation is asked of the buyer and stands with the order; what is fetched costs no parcel', async () => {
  const oakhand = await accountOf('Oakhand');
  const film = await readyFilm(2);
  await call('PUT', `/items/${film.id}/listings/${oakhand}`, { field: 'extra.personalPrompt', value: 'Which name?' });
  await publishItems([film.id], [oakhand]);
  await until(
    () => stateOn(film.id, oakhand),
    (state) => state === 'live',
  );
  const [there] = await marketListings('oakhand', film.sku);
  expect(await control('oakhand', 'buy', { listing: there?.id })).toHaveProperty('error');
  await control('oakhand', 'buy', { listing: there?.id, personal: 'For Ada' });
  type Sale = { personal: string | null; collected: boolean; packing: number; postage: number };
  const salesOf = async (id: number) => (await call<{ sales: Sale[] }>('GET', `/sales?item=${id}`)).body.sales;
  const [sale] = await until(
    () => salesOf(film.id),
    (sales) => sales.length === 1,
  );
  expect(sale).toMatchObject({ personal: 'For Ada', collected: false, packing: 60 });

  const hallowick = await live('Hallowick', {}, { 'extra.collection': true });
  await control('hallowick', 'buy', { listing: hallowick.there?.id, collect: true });
  const [fetched] = await until(
    () => salesOf(hallowick.item.id),
    (sales) => sales.length === 1,
  );
  expect(fetched).toMatchObject({ collected: true, packing: 0, postage: 0 });
});

test('several things in one order: one parcel, and what was taken off, are shared out line by line', async () => {
  const hallowick = await accountOf('Hallowick');
  const items = [await readyItem({ price: 10_000 }, 1), await readyItem({ price: 30_000 }, 1)];
  await publishItems(
    items.map((one) => one.id),
    [hallowick],
  );
  for (const { id } of items)
    await until(
      () => stateOn(id, hallowick),
      (state) => state === 'live',
    );
  const lines = await Promise.all(
    items.map(async ({ sku }) => ({ listing: (await marketListings('hallowick', sku))[0]?.id, quantity: 1 })),
  );
  await control('hallowick', 'buy-together', { lines, discount: 1_000 });
  type Sale = { total: number; discount: number; buyerPostage: number; packing: number };
  const sales = await Promise.all(
    items.map(({ id }) =>
      until(
        async () => (await call<{ sales: Sale[] }>('GET', `/sales?item=${id}`)).body.sales,
        (found) => found.length === 1,
      ).then(([one]) => one),
    ),
  );
  expect(sales[0]).toMatchObject({ total: 10_000, discount: 250, packing: 15 });
  expect(sales[1]).toMatchObject({ total: 30_000, discount: 750, packing: 45 });
  expect((sales[0]?.buyerPostage ?? 0) + (sales[1]?.buyerPostage ?? 0)).toBe(595);
});

test('quantity tiers and sale prices really apply, and Netting’s net agrees', async () => {
  const lotbarn = await accountOf('Lotbarn');
  const film = await readyFilm(9);
  type Line = { accountId: number; price: number; net: { net: number }; below: { label: string; net: number }[] };
  const line = async () =>
    (await call<{ lines: Line[] }>('GET', `/items/${film.id}/prices`)).body.lines.find(
      (one) => one.accountId === lotbarn,
    );
  await call('PUT', `/items/${film.id}/listings/${lotbarn}`, { field: 'extra.tiers', value: ['3: 17.00'] });
  await publishItems([film.id], [lotbarn]);
  await until(
    () => stateOn(film.id, lotbarn),
    (state) => state === 'live',
    40_000,
  );
  const foreseen = await line();
  expect(foreseen?.below.map((one) => one.label)).toEqual(['Quantity tiers: from 3']);
  const [there] = await marketListings('lotbarn', film.sku);
  await control('lotbarn', 'buy', { listing: there?.id, quantity: 3 });
  type Sale = { total: number; net: number; fee: number };
  const [sale] = await until(
    async () => (await call<{ sales: Sale[] }>('GET', `/sales?item=${film.id}`)).body.sales,
    (sales) => sales.length === 1,
    40_000,
  );
  expect(sale?.total).toBe(3 * 1_700);
});
