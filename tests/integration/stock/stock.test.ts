import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { sale } from '../../../src/db/schema';
import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

afterAll(closeDatabase);

type Stock = { quantity: number; movements: { delta: number; balance: number; reason: string; note: string | null }[] };
const ledger = async (id: number) => (await call<Stock>('GET', `/items/${id}/stock`)).body;
type Sale = { id: number; sku: string; oversold: boolean; state: string };
const salesOf = async (id: number) => (await call<{ sales: Sale[] }>('GET', `/sales?limit=50&item=${id}`)).body.sales;
const quantityThere = async (market: string, sku: string) =>
  (await marketListings(market, sku)).find((one) => one.state === 'live')?.summary.quantity;

async function liveWith(quantity: number, names: string[]) {
  const item = await readyItem({}, quantity);
  const accounts = await Promise.all(names.map(accountOf));
  await publishItems([item.id], accounts);
  for (const account of accounts)
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'live',
    );
  return { ...item, accounts };
}

test('every movement stands in the ledger with its reason and what was there after it', async () => {
  const item = await readyItem({}, 3);
  await call('POST', `/items/${item.id}/stock`, { how: 'add', units: 4, reason: 'bought', note: 'Harbour sale' });
  await call('POST', `/items/${item.id}/stock`, { how: 'set', units: 5 });
  await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 9_000 });
  const { quantity, movements } = await ledger(item.id);
  expect(quantity).toBe(4);
  expect(movements.map(({ delta, balance, reason }) => [delta, balance, reason])).toEqual([
    [-1, 4, 'sold'],
    [-2, 5, 'set'],
    [4, 7, 'bought'],
    [3, 3, 'opening'],
  ]);
  expect(movements[2]?.note).toBe('Harbour sale');
  expect((await call('POST', `/items/${item.id}/stock`, { how: 'add', units: -9 })).status).toBe(422);
});

test('a reserve is kept back and a cap holds on one account, and both are told there at once', async () => {
  const item = await liveWith(6, ['Hallowick', 'Oakhand']);
  const [hallowick = 0] = item.accounts;
  try {
    expect((await call('PUT', `/accounts/${hallowick}/pace`, { reserve: 2, cap: 3 })).status).toBe(200);
    await until(
      () => quantityThere('hallowick', item.sku),
      (seen) => seen === 3,
    );
    expect(await quantityThere('oakhand', item.sku)).toBe(6);
    await call('POST', `/items/${item.id}/stock`, { how: 'set', units: 4 });
    await until(
      () => quantityThere('hallowick', item.sku),
      (seen) => seen === 2,
    );
    await until(
      () => quantityThere('oakhand', item.sku),
      (seen) => seen === 4,
    );
  } finally {
    await call('PUT', `/accounts/${hallowick}/pace`, { reserve: 0, cap: null });
  }
});

test('a cancelled order gives back what was sold and lists it again where it had ended', async () => {
  const item = await liveWith(1, ['Hallowick', 'Oakhand']);
  const bought = await control('oakhand', 'buy', { reference: item.sku });
  await until(
    () => quantityThere('hallowick', item.sku),
    (seen) => seen === undefined,
  );
  await control('oakhand', 'cancel', { order: bought.order });
  await until(
    async () => [await quantityThere('hallowick', item.sku), await quantityThere('oakhand', item.sku)],
    ([one, other]) => one === 1 && other === 1,
  );
  expect((await sheet(item.id)).item.quantity).toBe(1);
  expect((await ledger(item.id)).movements[0]).toMatchObject({ delta: 1, reason: 'cancelled' });
  expect(await salesOf(item.id)).toEqual([expect.objectContaining({ state: 'cancelled' })]);
});

test('sold twice at the same instant: the later order is marked, and cancelling it sets things right', async () => {
  const item = await liveWith(1, ['Hallowick', 'Oakhand']);
  await Promise.all(['hallowick', 'oakhand'].map((market) => control(market, 'buy', { reference: item.sku })));
  const sales = await until(
    () => salesOf(item.id),
    (seen) => seen.length === 2,
  );
  const surplus = sales.filter((sale) => sale.oversold);
  expect(surplus).toHaveLength(1);
  expect((await sheet(item.id)).item.quantity).toBe(-1);
  expect((await call('POST', `/sales/${surplus[0]?.id}/cancel`, {})).status).toBe(201);
  expect((await sheet(item.id)).item.quantity).toBe(0);
  expect((await salesOf(item.id)).map((sale) => [sale.oversold, sale.state]).sort()).toEqual([
    [false, 'cancelled'],
    [false, 'paid'],
  ]);
  expect((await call('POST', `/sales/${surplus[0]?.id}/cancel`, {})).status).toBe(409);
  // The one piece is sold, so nothing comes back to life.
  for (const market of ['hallowick', 'oakhand']) expect(await quantityThere(market, item.sku)).toBeUndefined();
});

test('where sales went is forgotten on demand; the sales stay', async () => {
  const item = await liveWith(2, ['Oakhand']);
  await control('oakhand', 'buy', { reference: item.sku });
  const towns = async () =>
    (await call<{ sales: { buyerTown: string }[] }>('GET', `/sales?item=${item.id}`)).body.sales.map(
      (one) => one.buyerTown,
    );
  await until(towns, (seen) => seen.join() === 'Marrowby');
  expect((await call('POST', '/sales/forget-buyers', { olderThanDays: 1 })).status).toBe(201);
  // Sold today it is not old enough; a month later it is.
  expect(await towns()).toEqual(['Marrowby']);
  await database()
    .update(sale)
    .set({ soldAt: new Date(Date.now() - 30 * 86_400_000) })
    .where(eq(sale.itemId, item.id));
  const { body } = await call<{ forgotten: number }>('POST', '/sales/forget-buyers', { olderThanDays: 20 });
  expect(body.forgotten).toBeGreaterThan(0);
  expect(await towns()).toEqual(['']);
  expect(await salesOf(item.id)).toHaveLength(1);
  expect((await call('POST', '/sales/forget-buyers', { olderThanDays: -1 })).status).toBe(422);
});

test('the sales are handed out as a table, and a cell that looks like a formula is text', async () => {
  const item = await readyItem({ title: '=cmd()|test' }, 2);
  await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 12_345 });
  const answer = await fetch(`${stack.base}/api/v1/sales/file?item=${item.id}`, {
    headers: { authorization: `Bearer ${stack.token}` },
  });
  expect(answer.headers.get('content-type')).toContain('text/csv');
  const [head, line] = (await answer.text()).split('\r\n');
  expect(head).toContain('stock number,title');
  expect(line).toContain(`${item.sku},'=cmd()|test`);
  expect(line).toContain('123.45');
  expect((await fetch(`${stack.base}/api/v1/sales/file`)).status).toBe(401);
});
