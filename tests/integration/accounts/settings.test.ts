import { nameKey } from '../../../src/core/rules';
import { readyItem, stateOn } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accountOf, accounts, call } from '../../support/stack';

type Settings = {
  id: number;
  market: string;
  name: string;
  defaults: Record<string, unknown>;
  reserve: number;
  cap: number | null;
  paused: boolean;
};
const settingsOf = async (id: number): Promise<Settings> => {
  type Shown = Settings & { heardAt: string | null };
  const { body } = await call<{ accounts: Shown[] }>('GET', '/accounts');
  const found = body.accounts.find((one) => one.id === id);
  if (!found) throw new Error(`no account ${id}`);
  // It is heard again and again meanwhile: no setting of anybody's.
  const { heardAt: _heard, ...settings } = found;
  return settings as Settings;
};
const set = (id: number, change: object) => call<{ code: string; field: string }>('PATCH', `/accounts/${id}`, change);

describe("an account's settings", () => {
  test('several defaults set at the same moment are all kept', async () => {
    const id = await accountOf('Oakhand');
    const before = (await settingsOf(id)).defaults;
    const keys = Array.from({ length: 8 }, (_, at) => `test.${at}`);
    await Promise.all(keys.map((key) => set(id, { defaults: { [key]: key } })));
    expect((await settingsOf(id)).defaults).toEqual({
      ...before,
      ...Object.fromEntries(keys.map((key) => [key, key])),
    });

    await Promise.all(keys.map((key, at) => set(id, { defaults: { [key]: at % 2 ? null : '' } })));
    expect((await settingsOf(id)).defaults).toEqual(before);
  });

  test('a change of one field leaves the others', async () => {
    const id = await accountOf('Oakhand');
    const before = await settingsOf(id);
    await set(id, { name: 'Oakhand, front room' });
    expect(await settingsOf(id)).toEqual({ ...before, name: 'Oakhand, front room' });
    await set(id, { name: before.name });
  });

  test.each([
    ['an empty name', { name: '  ' }, 'name'],
    ['a footer without end', { footer: 'x'.repeat(501) }, 'footer'],
    ['more packaging than goods', { packaging: { basisPoints: 10_001, atLeastGrams: 0 } }, 'packaging.basisPoints'],
  ])('%s is refused at its field', async (_what, change, field) => {
    const id = await accountOf('Oakhand');
    const before = await settingsOf(id);
    const refused = await set(id, change);
    expect(refused).toMatchObject({ status: 422, body: { code: 'invalid', field } });
    expect(await settingsOf(id)).toEqual(before);
  });

  test('an account that is not there is told', async () => {
    expect(await set(999_999, { name: 'Nowhere' })).toMatchObject({ status: 404, body: { code: 'not-found' } });
    expect((await call('PUT', '/accounts/999999/pace', { reserve: 1 })).status).toBe(404);
    expect((await call('PUT', '/accounts/999999/categories', { ownCategory: 'a', categoryId: 'b' })).status).toBe(404);
  });

  test('the stock offered: what is held back comes off first, the cap is never passed', async () => {
    const id = await accountOf('Shopfront');
    const item = await readyItem({}, 9);
    const offered = async () => valueFor(await previewOn(item.id, 'shopfront'), 'quantity').value;
    const before = await settingsOf(id);
    try {
      await call('PUT', `/accounts/${id}/pace`, { reserve: 2, cap: null });
      expect(await offered()).toBe(7);
      await call('PUT', `/accounts/${id}/pace`, { cap: 3 });
      expect(await settingsOf(id)).toMatchObject({ reserve: 2, cap: 3 });
      expect(await offered()).toBe(3);
      await call('PUT', `/accounts/${id}/pace`, { reserve: 20 });
      expect(await offered()).toBe(0);
    } finally {
      await call('PUT', `/accounts/${id}/pace`, { reserve: before.reserve, cap: before.cap });
    }
  });

  test('accounts are held together and let go on together', async () => {
    const ids = [await accountOf('Oakhand'), await accountOf('Pippet')];
    const paused = async () => Promise.all(ids.map(async (id) => (await settingsOf(id)).paused));
    await call('POST', '/accounts/hold', { accounts: ids, stopped: true });
    expect(await paused()).toEqual([true, true]);
    await call('POST', '/accounts/hold', { accounts: ids, stopped: false });
    expect(await paused()).toEqual([false, false]);
  });
});

describe('connecting by a key', () => {
  test('a key of another kind of marketplace, a wrong one and a short one are refused', async () => {
    const connect = (market: string, key: string) =>
      call<{ code: string }>('POST', '/accounts', { market, key }).then(({ status }) => status);
    const before = (await accounts()).length;
    expect(await connect('hallowick', 'a-key-that-is-long-enough')).toBe(422);
    expect(await connect('hallowick', 'short')).toBe(422);
    expect(await connect('nowhere', 'a-key-that-is-long-enough')).toBeGreaterThanOrEqual(400);
    expect((await accounts()).length).toBe(before);
  });
});

describe('what is learned of a marketplace', () => {
  type Known = { id: string; kind: string; source: string; target: string; byName: string };
  const known = async (market: string) =>
    (await call<{ known: Known[] }>('GET', `/mappings?market=${market}`)).body.known;

  test('a value is matched for every item that says the same, and can be forgotten once', async () => {
    const item = await readyItem({
      attributes: { 'Film format': '35 mm', Colour: 'Anthracite test', Decade: '1970s' },
    });
    const source = nameKey('Anthracite test');
    const match = { market: 'selasar', kind: 'value', attribute: 'colour', source: 'Anthracite test', target: 'Grey' };
    await call('POST', '/mappings', match);
    const [one, ...rest] = (await known('selasar')).filter((row) => row.source === source);
    expect(rest).toEqual([]);
    expect(one).toMatchObject({ kind: 'value', target: 'Grey' });

    await call('POST', '/mappings', { ...match, target: 'Black' });
    const again = (await known('selasar')).filter((row) => row.source === source);
    expect(again).toHaveLength(1);
    expect(again[0]).toMatchObject({ id: one?.id, target: 'Black' });

    const forget = () => call<{ code: string }>('POST', '/mappings/forget', { market: 'selasar', id: one?.id });
    expect((await forget()).status).toBe(201);
    expect(await forget()).toMatchObject({ status: 404, body: { code: 'not-found' } });
    expect(await stateOn(item.id, await accountOf('Selasar'))).toBeDefined();
  });

  test('only a category of the deepest level can stand for one of ours', async () => {
    const id = await accountOf('Hallowick');
    const { market } = await settingsOf(id);
    const categories = (await known(market)).filter((row) => row.kind === 'category');
    expect(categories.length).toBeGreaterThan(0);
    const refused = await call<{ field: string }>('PUT', `/accounts/${id}/categories`, {
      ownCategory: 'cameras/slr',
      categoryId: 'no-such-category',
    });
    expect(refused).toMatchObject({ status: 422, body: { field: 'categoryId' } });
    expect((await known(market)).filter((row) => row.kind === 'category')).toEqual(categories);
  });
});

describe('boxes, parcels and rates', () => {
  test('a box is added, offered and removed once', async () => {
    const box = { name: 'Tall test box', lengthMm: 300, widthMm: 200, heightMm: 150, grams: 180, cost: 95 };
    const { body } = await call<{ id: number }>('POST', '/boxes', box);
    const boxes = async () => (await call<{ boxes: { id: number }[] }>('GET', '/boxes')).body.boxes;
    expect((await boxes()).find((one) => one.id === body.id)).toEqual({ id: body.id, ...box });
    expect((await call('DELETE', `/boxes/${body.id}`)).status).toBe(200);
    expect((await call('DELETE', `/boxes/${body.id}`)).status).toBe(404);
    expect((await boxes()).some((one) => one.id === body.id)).toBe(false);
  });

  test.each([
    [{ name: '', lengthMm: 1, widthMm: 1, heightMm: 1, grams: 0 }, 'name'],
    [{ name: 'Flat', lengthMm: 0, widthMm: 1, heightMm: 1, grams: 0 }, 'lengthMm'],
    [{ name: 'Broken', lengthMm: 1.5, widthMm: 1, heightMm: 1, grams: 0 }, 'lengthMm'],
  ])('a box that cannot be is refused at its field: %j', async (box, field) =>
    expect(await call('POST', '/boxes', box)).toMatchObject({ status: 422, body: { field } }),
  );

  test('carriers ask more for what is heavier or goes farther; nobody takes a ton', async () => {
    type Asked = { quotes: { carrier: string; amount: number }[] };
    const asked = async (query: string) => (await call<Asked>('GET', `/postage?${query}`)).body.quotes;
    const cheapest = async (query: string) => Math.min(...(await asked(query)).map((one) => one.amount));
    const light = await cheapest('grams=400');
    expect(light).toBeGreaterThan(0);
    expect(await cheapest('grams=4000')).toBeGreaterThan(light);
    expect(await cheapest('grams=400&band=far')).toBeGreaterThan(light);
    expect(await asked('grams=1000000')).toEqual([]);
  });

  test("a day's rate is taken back once, and asking brings it again", async () => {
    type Rate = { to: string; date: string; millionths: number };
    const rates = async () => (await call<{ rates: Rate[] }>('GET', '/rates')).body.rates;
    await call('POST', '/rates', {});
    const [newest] = await rates();
    if (!newest) throw new Error('no rate');
    const forget = () => call('POST', '/rates/forget', { to: newest.to, date: newest.date });
    expect((await forget()).status).toBe(201);
    expect((await forget()).status).toBe(404);
    expect(await rates()).not.toContainEqual(newest);
    await call('POST', '/rates', {});
    expect(await rates()).toContainEqual(newest);
  });
});
