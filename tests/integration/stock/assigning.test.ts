import { closeDatabase } from '../../../src/db/client';
import { recordSale } from '../../../src/services/stock/record-sale';
import { readyItem } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';

type Sale = { id: number; orderId: string; unassigned: boolean; oversold: boolean; itemId: number | null };
const sales = async (query: string) => (await call<{ sales: Sale[] }>('GET', `/sales?${query}`)).body.sales;
const unitsOf = async (id: number) =>
  (await call<{ item: { quantity: number; variations: { key: string; quantity: number }[] } }>('GET', `/items/${id}`))
    .body.item;
let count = 0;
const order = (part: Record<string, unknown>) => ({
  orderId: `AS-${process.pid}-${Date.now()}-${++count}`,
  line: 0,
  rawState: null,
  remoteListingId: 'nobody-knows',
  sku: 'nothing-of-ours',
  title: 'A thing without a number',
  quantity: 2,
  unitPrice: 1_000,
  total: 2_000,
  fee: 100,
  buyerPostage: 0,
  discount: 0,
  parcelShare: 1,
  label: 0,
  collected: false,
  personal: null,
  currency: 'EUR',
  buyerTown: 'Marlo',
  variation: null,
  soldAt: new Date(),
  changedAt: new Date(),
  cancelled: false,
  ...part,
});
afterAll(closeDatabase);

test('an order that fits nothing is an alarm, and leaves the stock of the item that a person names, once', async () => {
  const shop = await accountOf('Shopfront');
  const { id } = await readyItem({}, 5);
  const heard = order({});
  await recordSale(shop, heard);
  const [sale] = (await sales('state=unassigned')).filter((one) => one.orderId === heard.orderId);
  expect(sale).toMatchObject({ unassigned: true, itemId: null });
  const before = (await call<{ unassigned: number }>('GET', '/progress')).body.unassigned;
  expect(before).toBeGreaterThan(0);
  expect((await call('POST', `/sales/${sale?.id}/assign`, { item: id })).body).toEqual({
    quantity: 3,
    oversold: false,
  });
  expect((await call('POST', `/sales/${sale?.id}/assign`, { item: id })).status).toBe(409);
  expect((await unitsOf(id)).quantity).toBe(3);
  expect((await call<{ unassigned: number }>('GET', '/progress')).body.unassigned).toBe(before - 1);
});

test('an order that says too little of an item with variations asks for the variation, also when two assign at once', async () => {
  const shop = await accountOf('Shopfront');
  const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
  const row = (value: string) => ({ values: [value], on: true, sku: '', quantity: 1, price: null, barcode: '' });
  const { id, sku } = await readyItem({ axes, variations: [row('Black'), row('Tan')], category: 'accessories/straps' });
  const heard = order({ sku });
  await recordSale(shop, heard);
  const [sale] = (await sales('state=unassigned')).filter((one) => one.orderId === heard.orderId);
  expect(sale?.itemId).toBe(id);
  expect((await call('POST', `/sales/${sale?.id}/assign`, { item: id })).status).toBe(422);
  const combination = (await unitsOf(id)).variations[1]?.key;
  const answers = await Promise.all([
    call('POST', `/sales/${sale?.id}/assign`, { item: id, combination }),
    call('POST', `/sales/${sale?.id}/assign`, { item: id, combination }),
  ]);
  expect(answers.map((one) => one.status).sort()).toEqual([201, 409]);
  // One was there and two were sold: a debt in the ledger, and said to be oversold.
  const now = await until(
    () => unitsOf(id),
    (item) => item.variations[1]?.quantity === -1,
  );
  expect(now.variations[0]?.quantity).toBe(1);
  expect((await sales(`item=${id}`))[0]).toMatchObject({ unassigned: false, oversold: true });
  // Called off again, all is as it was.
  await call('POST', `/sales/${sale?.id}/cancel`, {});
});
