import { publishItems, readyFilm, readyItem, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

type Net = { net: number; postage: number; packaging: number; fees: { total: number } };
type Line = { accountId: number; name: string; currency: string; price: number | null; net: Net | null };
type Column = { accountId: number; net: Net | null; fields: { field: string; value: unknown }[] };
const columnsOf = async (id: number) => (await call<{ columns: Column[] }>('GET', `/items/${id}`)).body.columns;
const lineOn = async (id: number, account: number): Promise<Line> => {
  const { body } = await call<{ lines: Line[] }>('GET', `/items/${id}/prices`);
  const found = body.lines.find((one) => one.accountId === account);
  if (!found) throw new Error('no such line');
  return found;
};

/** What every place says that is left of an item on an account. */
async function everywhere(id: number, account: number) {
  const panel = (await lineOn(id, account)).net?.net;
  const column = (await columnsOf(id)).find((one) => one.accountId === account);
  const foot = column?.net?.net;
  const selection = { kind: 'items', ids: [id] };
  type Plan = { knots: { accountId: number; net: number | null }[] };
  const plan = (await call<Plan>('POST', '/publish/plan', { selection, accounts: [account] })).body;
  const publish = plan.knots.find((one) => one.accountId === account)?.net;
  type Rows = { rows: { nets: { accountId: number; before: number | null }[] }[] };
  const steps = [{ field: 'notes', do: { verb: 'set', value: 'looked at' } }];
  const rows = (await call<Rows>('POST', '/edits/preview', { selection, steps })).body.rows;
  const workbench = rows[0]?.nets.find((one) => one.accountId === account)?.before;
  return { panel, foot, publish, workbench };
}

/** Listings found by their net there: the bound lies just above what the others say. */
async function isFoundAt(id: number, account: number, sku: string, net: number): Promise<boolean> {
  const found = async (netBelow: number) => {
    const where = JSON.stringify({
      all: [{ field: 'sku', op: 'is', value: sku }, { listing: { account, netBelow } }],
    });
    const { body } = await call<{ items: { id: number }[] }>('GET', `/items?${new URLSearchParams({ where })}`);
    return body.items.some((one) => one.id === id);
  };
  return (await found(net + 1)) && !(await found(net));
}

const live = async (id: number, account: number) => {
  await publishItems([id], [account]);
  await until(
    () => stateOn(id, account),
    (state) => state === 'live',
  );
};

describe('one net, wherever it stands', () => {
  test.each([
    ['buyer pays the label', 'Hallowick', null],
    ['free postage, the marketplace sells the label', 'Hallowick', { field: 'extra.postage', value: 'free' }],
    ['postage by a carrier, out of the price', 'Lanesend', { field: 'extra.handover', value: 'both' }],
    ['another currency, price that holds postage and fees', 'Selasar', null],
    ['another category’s commission', 'Hallowick', { field: 'category', value: null }],
  ])('%s on %s', async (_what, name, own) => {
    const account = await accountOf(name);
    const film = await readyFilm(2);
    if (own?.value) await call('PUT', `/items/${film.id}/listings/${account}`, own);
    if (own?.value === null) {
      const film120 = (await columnsOf(film.id)).find((one) => one.accountId === account);
      const kept = film120?.fields.find((one) => one.field === 'category')?.value;
      await call('PUT', `/items/${film.id}/listings/${account}`, { field: 'category', value: kept });
    }
    await live(film.id, account);
    const said = await everywhere(film.id, account);
    const { panel = 0 } = said;
    expect(said).toEqual({ panel, foot: panel, publish: panel, workbench: panel });
    await until(
      () => isFoundAt(film.id, account, film.sku, panel),
      (isIt) => isIt,
    );
  });

  test('postage that a template makes free counts everywhere, too', async () => {
    const account = await accountOf('Hallowick');
    const item = await readyItem({ supplier: 'Free by template' }, 1);
    await live(item.id, account);
    const before = (await lineOn(item.id, account)).net;
    const made = await call<{ id: number }>('POST', '/templates', {
      name: 'Free postage',
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Free by template' }],
      fields: { 'extra.postage': 'Free postage' },
    });
    expect(made.status).toBe(201);
    try {
      const said = await everywhere(item.id, account);
      const after = (await lineOn(item.id, account)).net;
      expect(before?.postage).toBe(0);
      expect(after?.postage).toBe(595);
      expect(said).toEqual({ panel: after?.net, foot: after?.net, publish: after?.net, workbench: after?.net });
      await until(
        () => isFoundAt(item.id, account, item.sku, after?.net ?? 0),
        (isIt) => isIt,
      );
    } finally {
      await call('DELETE', `/templates/${made.body.id}`);
    }
  });

  test('free postage goes into the price where that is chosen, also where a carrier brings it', async () => {
    const account = await accountOf('Oakhand');
    const item = await readyItem({ weightGrams: 900 }, 1);
    const plain = { mode: 'same', basisPoints: 0, addPostage: false, rounding: 'none' };
    try {
      await call('PATCH', `/accounts/${account}`, { pricing: { ...plain, addPostage: true } });
      const buyerPays = await lineOn(item.id, account);
      const profile = (await columnsOf(item.id))
        .find((one) => one.accountId === account)
        ?.fields.find((one) => one.field === 'extra.postageProfile');
      expect(profile).toBeDefined();
      await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'extra.postageProfile', value: 'free' });
      const sellerPays = await lineOn(item.id, account);
      const quote = (await call<{ quotes: { amount: number }[] }>('GET', `/items/${item.id}/prices`)).body.quotes[0];
      expect(buyerPays.price).toBe(14_900);
      expect(sellerPays.price).toBe(14_900 + (quote?.amount ?? 0));
      expect(sellerPays.net?.postage).toBe(quote?.amount);
    } finally {
      await call('PATCH', `/accounts/${account}`, { pricing: plain });
    }
  });

  test('a sale price and tiers show what is left of them', async () => {
    const selasar = await accountOf('Selasar');
    const film = await readyFilm(9);
    const price = (await lineOn(film.id, selasar)).price ?? 0;
    const write = (field: string, value: unknown) =>
      call('PUT', `/items/${film.id}/listings/${selasar}`, { field, value });
    await write('extra.salePrice', price - 300);
    await write('extra.saleFrom', '2026-01-01');
    await write('extra.saleTo', '2027-01-01');
    type Lower = { lines: (Line & { below: { label: string; price: number; net: number }[] })[] };
    const panel = (await call<Lower>('GET', `/items/${film.id}/prices`)).body;
    const line = panel.lines.find((one) => one.accountId === selasar);
    expect(line?.below).toEqual([{ label: 'Sale price', price: price - 300, net: expect.any(Number) }]);
    expect(line?.below[0]?.net).toBeLessThan(line?.net?.net ?? 0);
  });
});

test('a sale’s net holds what the parcel cost: reckoned, then as it is written down', async () => {
  const account = await accountOf('Hallowick');
  const item = await readyItem({}, 1);
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'extra.postage', value: 'free' });
  await live(item.id, account);
  const { net } = await lineOn(item.id, account);
  const [there] = await marketListings('hallowick', item.sku);
  await control('hallowick', 'buy', { listing: there?.id, quantity: 1 });
  type Sale = { id: number; orderId: string; postage: number; packing: number; postageKnown: boolean; net: number };
  const [sale] = await until(
    async () => (await call<{ sales: Sale[] }>('GET', `/sales?item=${item.id}`)).body.sales,
    (sales) => sales.length === 1,
  );
  expect(sale).toMatchObject({ postage: 595, packing: 60, postageKnown: false, net: net?.net });
  await call('POST', '/postage', { saleId: sale?.id, carrier: 'postline', grams: 1_020, paid: 700 });
  const [now] = (await call<{ sales: Sale[] }>('GET', `/sales?item=${item.id}`)).body.sales;
  expect(now).toMatchObject({ postage: 700, postageKnown: true, net: (net?.net ?? 0) - 105 });
});
