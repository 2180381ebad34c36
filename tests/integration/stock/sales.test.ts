import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

type Sale = {
  id: number;
  orderId: string;
  state: string;
  total: number;
  fee: number;
  cost: number;
  net: number;
  quantity: number;
  buyerTown: string;
};
const salesOf = async (item: number) => (await call<{ sales: Sale[] }>('GET', `/sales?item=${item}`)).body.sales;
const quantityOf = async (id: number) => (await call<{ quantity: number }>('GET', `/items/${id}/stock`)).body.quantity;
const csv = async (query = '') =>
  (
    await fetch(`${stack.base}/api/v1/sales/file?${query}`, { headers: { authorization: `Bearer ${stack.token}` } })
  ).text();

async function soldOnHallowick(quantity = 1): Promise<{ item: { id: number; sku: string }; sale: Sale }> {
  const item = await readyItem({ title: '=cmd|"x"!A1, a "quoted" title' }, quantity);
  const hallowick = await accountOf('Hallowick');
  await publishItems([item.id], [hallowick]);
  await until(
    () => stateOn(item.id, hallowick),
    (state) => state === 'live',
  );
  const [there] = await marketListings('hallowick', item.sku);
  await control('hallowick', 'buy', { listing: there?.id, quantity: 1 });
  const [sale] = await until(
    () => salesOf(item.id),
    (sales) => sales.length === 1,
  );
  if (!sale) throw new Error('no sale');
  return { item, sale };
}

test('a sale says what was left of it: total less fees, packing and cost', async () => {
  const { sale } = await soldOnHallowick();
  expect(sale.fee).toBeGreaterThan(0);
  // Postage that the buyer pays goes to the carrier; packing is 0.60.
  expect(sale.net).toBe(sale.total - sale.fee - sale.cost * sale.quantity - 60);
});

test('cancelling gives the stock back once; a second time is told', async () => {
  const { item, sale } = await soldOnHallowick(2);
  expect(await quantityOf(item.id)).toBe(1);
  const cancel = () => call<{ quantity: number; code: string }>('POST', `/sales/${sale.id}/cancel`, {});
  expect((await cancel()).body.quantity).toBe(2);
  expect(await cancel()).toMatchObject({ status: 409, body: { code: 'too-late' } });
  expect(await quantityOf(item.id)).toBe(2);
  expect((await salesOf(item.id))[0]).toMatchObject({ state: 'cancelled', net: 0 });
});

test('two who cancel the same order at the same moment give it back once', async () => {
  const { item, sale } = await soldOnHallowick(3);
  const both = await Promise.all([1, 2].map(() => call('POST', `/sales/${sale.id}/cancel`, {})));
  expect(both.some((one) => one.status === 201)).toBe(true);
  expect(await quantityOf(item.id)).toBe(3);
});

describe('sold by hand', () => {
  const sell = (id: number, quantity: number, more = {}) =>
    call<{ quantity: number; field: string }>('POST', `/items/${id}/sold`, { quantity, unitPrice: 9_900, ...more });

  test('lowers the stock, and no more than is there', async () => {
    const item = await readyItem({}, 3);
    expect((await sell(item.id, 2)).body.quantity).toBe(1);
    expect(await sell(item.id, 2)).toMatchObject({ status: 422, body: { field: 'quantity' } });
    expect(await quantityOf(item.id)).toBe(1);
  });

  test('many at the same counter never sell one piece twice', async () => {
    const item = await readyItem({}, 4);
    const tries = await Promise.all(Array.from({ length: 9 }, () => sell(item.id, 1)));
    expect(tries.filter((one) => one.status === 201)).toHaveLength(4);
    expect(await quantityOf(item.id)).toBe(0);
    expect(await salesOf(item.id)).toHaveLength(4);
  });

  test('of one with combinations it has to be said which', async () => {
    const rows = ['Black', 'Tan'].map((value) => ({
      values: [value],
      on: true,
      sku: '',
      quantity: 1,
      price: null,
      barcode: '',
    }));
    const item = await readyItem({ axes: [{ name: 'Colour', values: ['Black', 'Tan'] }], variations: rows });
    expect(await sell(item.id, 1)).toMatchObject({ status: 422, body: { field: 'variation' } });
    expect((await sell(item.id, 1, { variation: ['Tan'] })).body.quantity).toBe(1);
    expect((await sell(item.id, 1, { variation: ['Tan'] })).status).toBe(422);
  });
});

describe('the file', () => {
  test('holds every sale that is filtered, as RFC 4180 has it, and nothing that a spreadsheet would run', async () => {
    const { sale } = await soldOnHallowick();
    const lines = (await csv(`account=${await accountOf('Hallowick')}`)).trimEnd().split('\r\n');
    const [head = '', ...rows] = lines;
    expect(head.split(',')).toHaveLength(21);
    const mine = rows.find((row) => row.includes(sale.orderId)) ?? '';
    expect(mine).toContain(`"'=cmd|""x""!A1, a ""quoted"" title"`);
    expect(mine).toContain((sale.total / 100).toFixed(2));
    expect(rows.every((row) => row.includes('Hallowick'))).toBe(true);
  });

  test('an order of an account that is not there is an empty file with its head', async () => {
    expect((await csv('account=99999999')).trimEnd().split('\r\n')).toHaveLength(1);
    const refused = await fetch(`${stack.base}/api/v1/sales/file?state=lost`, {
      headers: { authorization: `Bearer ${stack.token}` },
    });
    expect(refused.status).toBe(422);
  });
});

test('of a buyer only the town is kept, and it can be taken out', async () => {
  const { item, sale } = await soldOnHallowick();
  expect(sale.buyerTown).toBe('Marrowby');
  // What is younger than said stays.
  await call('POST', '/sales/forget-buyers', { olderThanDays: 3_000 });
  expect((await salesOf(item.id))[0]?.buyerTown).toBe('Marrowby');
  expect((await call('POST', '/sales/forget-buyers', { olderThanDays: -1 })).status).toBe(422);
});
