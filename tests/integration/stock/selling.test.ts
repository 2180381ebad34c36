import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

const markets = { Hallowick: 'hallowick', Pippet: 'pippet', Oakhand: 'oakhand' } as const;
const names = Object.keys(markets) as (keyof typeof markets)[];
const three = () => Promise.all(names.map(accountOf));
const allLive = async (id: number, accounts: number[]) =>
  until(
    () => Promise.all(accounts.map((account) => stateOn(id, account))),
    (states) => states.every((state) => state === 'live'),
  );

test('one record becomes three listings, each told in its marketplace’s way', async () => {
  const item = await readyItem();
  const accounts = await three();
  expect((await publishItems([item.id], accounts)).status).toBe(201);
  await allLive(item.id, accounts);
  for (const name of names) {
    const [listing, ...more] = await marketListings(markets[name], item.sku);
    expect(more).toEqual([]);
    expect(listing).toMatchObject({ state: 'live', summary: { price: 14_900, reference: item.sku } });
    expect(listing?.summary.photos).toHaveLength(1);
  }
  const column = (await sheet(item.id)).columns.find((one) => one.name === 'Hallowick');
  expect(await (await fetch(column?.url ?? '')).text()).toContain('149.00 EUR');
});

test('a sale in one place ends the listing everywhere else, and is recorded once however often it is heard', async () => {
  const item = await readyItem();
  const accounts = await three();
  await publishItems([item.id], accounts);
  await allLive(item.id, accounts);
  await control('pippet', 'webhooks', { double: true, delayMs: 0, reorder: false });
  const [bought] = await marketListings('pippet', item.sku);
  await control('pippet', 'buy', { listing: bought?.id });
  await until(
    () => marketListings('hallowick', item.sku),
    ([listing]) => listing?.state === 'ended',
  );
  await until(
    () => marketListings('oakhand', item.sku),
    ([listing]) => listing?.state === 'ended',
  );
  await control('pippet', 'calm');
  const states = await until(
    async () =>
      (await sheet(item.id)).columns
        .filter((column) => accounts.includes(column.accountId))
        .map((column) => column.state),
    (seen) => !seen.includes('live'),
  );
  expect([...states].sort()).toEqual(['ended', 'ended', 'sold']);
  const { body } = await call<{ sales: { sku: string; total: number; net: number }[] }>('GET', '/sales?limit=50');
  expect(body.sales.filter((sale) => sale.sku === item.sku)).toHaveLength(1);
  expect((await sheet(item.id)).item.quantity).toBe(0);
});

test('a sale of one of several lowers the number everywhere', async () => {
  const item = await readyItem({}, 5);
  const accounts = await Promise.all(['Hallowick', 'Oakhand'].map(accountOf));
  await publishItems([item.id], accounts);
  await allLive(item.id, accounts);
  const [listing] = await marketListings('oakhand', item.sku);
  await control('oakhand', 'buy', { listing: listing?.id, quantity: 2 });
  await until(
    () => marketListings('hallowick', item.sku),
    ([one]) => one?.summary.quantity === 3,
  );
  expect((await marketListings('oakhand', item.sku))[0]?.summary.quantity).toBe(3);
});

test('sold by hand does the same', async () => {
  const item = await readyItem();
  const hallowick = await accountOf('Hallowick');
  await publishItems([item.id], [hallowick]);
  await allLive(item.id, [hallowick]);
  expect((await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 10_000 })).status).toBe(201);
  await until(
    () => marketListings('hallowick', item.sku),
    ([one]) => one?.state === 'ended',
  );
  expect((await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 10_000 })).status).toBe(422);
});

test('a change behind the back is noticed', async () => {
  const item = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await publishItems([item.id], [oakhand]);
  await allLive(item.id, [oakhand]);
  const [listing] = await marketListings('oakhand', item.sku);
  await control('oakhand', 'change', { listing: listing?.id, set: { name: 'Changed over there' } });
  await until(
    () => stateOn(item.id, oakhand),
    (state) => state === 'changed',
  );
});

test('an event at an address that nobody registered is refused', async () => {
  const body = JSON.stringify({ type: 'sale', data: { order: 'x', listing: 'y' } });
  const headers = {
    'content-type': 'application/json',
    'webhook-id': 'msg_1',
    'webhook-timestamp': String(Math.floor(Date.now() / 1000)),
    'webhook-signature': 'v1,Zm9yZ2Vk',
  };
  expect((await fetch(`${stack.base}/api/webhooks/nobody`, { method: 'POST', headers, body })).status).toBe(404);
});
