import { eq, sql } from 'drizzle-orm';
import { closeDatabase, database, transaction } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { job } from '../../../src/db/schema';
import { refreshListings } from '../../../src/services/records/listings/refresh-listings';
import { ingestOrder } from '../../../src/services/stock/ingest-order';
import { recordSale } from '../../../src/services/stock/record-sale';
import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

const db = database();
const there = async (market: string, sku: string) => (await marketListings(market, sku))[0];
const live = (id: number, account: number) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    45_000,
  );
type Row = { key: string; values: string[]; quantity: number };
const itemOf = async (id: number) =>
  (await call<{ item: { version: number; quantity: number; variations: Row[] } }>('GET', `/items/${id}`)).body.item;
const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
const row = (value: string, quantity: number) => ({
  values: [value],
  on: true,
  sku: '',
  quantity,
  price: null,
  barcode: '',
});
const varied = (black: number, tan: number) =>
  readyItem({ axes, variations: [row('Black', black), row('Tan', tan)], category: 'accessories/straps' });

let shop: number;
beforeAll(async () => {
  shop = await accountOf('Shopfront');
});
afterEach(() => control('shopfront', 'calm'));
afterAll(closeDatabase);

test('cancelling is the exact opposite of selling, also of more than there was', async () => {
  const { id, sku } = await varied(2, 1);
  const order = (count: number, quantity: number) => ({
    orderId: `TT-${process.pid}-${Date.now()}-${count}`,
    line: 0,
    rawState: null,
    remoteListingId: 'none',
    sku,
    title: 'Strap',
    quantity,
    unitPrice: 1_000,
    total: 1_000 * quantity,
    fee: 0,
    buyerPostage: 0,
    discount: 0,
    parcelShare: 1,
    label: 0,
    collected: false,
    personal: null,
    currency: 'EUR',
    buyerTown: '',
    variation: { values: ['Tan'], number: '' },
    soldAt: new Date(),
    changedAt: new Date(),
    cancelled: false,
  });
  const orders = [order(1, 1), order(2, 2)];
  for (const one of orders) await recordSale(shop, one);
  const owed = await itemOf(id);
  // A debt, not zero: two more were sold than there are.
  expect(owed.variations.map((one) => one.quantity)).toEqual([2, -2]);
  const { sales } = (
    await call<{ sales: { id: number; oversold: boolean; quantity: number }[] }>('GET', `/sales?item=${id}`)
  ).body;
  expect(sales.map((one) => one.oversold)).toEqual([true, false]);
  for (const one of orders.reverse()) await ingestOrder(shop, [{ ...one, cancelled: true }]);
  const back = await itemOf(id);
  expect(back.variations.map((one) => one.quantity)).toEqual([2, 1]);
  const { movements } = (await call<{ movements: { delta: number }[] }>('GET', `/items/${id}/stock`)).body;
  expect(movements.reduce((sum, one) => sum + one.delta, 0)).toBe(3);
});

test('every change of what an account offers is told: units moved between combinations, and a raised reserve', async () => {
  const { id, sku } = await varied(3, 1);
  const plain = await readyItem({}, 4);
  await publishItems([id, plain.id], [shop]);
  await live(id, shop);
  await live(plain.id, shop);
  const before = await itemOf(id);
  const variations = before.variations.map((one) => ({ ...one, quantity: one.values[0] === 'Tan' ? 3 : 1 }));
  await call('PATCH', `/items/${id}`, { baseVersion: before.version, patch: { variations } });
  const unitsThere = async () => JSON.stringify((await there('shopfront', sku)) ?? null);
  await until(unitsThere, (text) => {
    const at = (value: string) => new RegExp(`"${value}"\\][^}]*?"stock":(\\d+)`).exec(text)?.[1];
    return at('Black') === '1' && at('Tan') === '3';
  });
  await call('PUT', `/accounts/${shop}/pace`, { reserve: 3 });
  try {
    await until(
      () => there('shopfront', plain.sku),
      (one) => one?.summary.quantity === 1,
    );
  } finally {
    await call('PUT', `/accounts/${shop}/pace`, { reserve: 0 });
  }
  await until(
    () => there('shopfront', plain.sku),
    (one) => one?.summary.quantity === 4,
  );
});

test('a change that joins a job that waits long keeps its own urgency and time', async () => {
  const { id, sku } = await readyItem({}, 1);
  await publishItems([id], [shop]);
  await live(id, shop);
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: true });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 13_000 } }],
    send: true,
  });
  const [waiting] = await db
    .select()
    .from(job)
    .where(sql`live_listing = (select id from listing where item_id = ${id} and account_id = ${shop})`);
  await db
    .update(job)
    .set({ dueAt: new Date(Date.now() + 3_600_000), attempts: 3 })
    .where(eq(job.id, waiting?.id ?? 0));
  await call('POST', `/items/${id}/sold`, { quantity: 1, unitPrice: 13_000 });
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: false });
  await until(
    () => there('shopfront', sku),
    (one) => one?.state === 'ended',
    10_000,
  );
});

test('what waits to be made keeps its place when its item changes: it is no stock that anybody can buy', async () => {
  const { id } = await readyItem({}, 3);
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: true });
  try {
    await publishItems([id], [shop]);
    const priority = async () =>
      (
        await db
          .select({ priority: job.priority })
          .from(job)
          .where(sql`live_listing = (select id from listing where item_id = ${id} and account_id = ${shop})`)
      )[0]?.priority;
    const before = await priority();
    await call('POST', '/edits', {
      selection: { kind: 'items', ids: [id] },
      steps: [{ field: 'title', do: { verb: 'before', text: 'Fine ' } }],
      send: true,
    });
    await call('POST', `/items/${id}/stock`, { how: 'set', units: 2 });
    expect(await priority()).toBe(before);
  } finally {
    await call('POST', '/accounts/hold', { accounts: [shop], stopped: false });
  }
});

test('who computes listings holds them: an edit in the middle waits, and is not marked as sent', async () => {
  const { id } = await readyItem({}, 3);
  await publishItems([id], [shop]);
  await live(id, shop);
  let edit: Promise<unknown> = Promise.resolve();
  await transaction(async (tx) => {
    await refreshListings(tx, [id]);
    edit = call('POST', '/edits', {
      selection: { kind: 'items', ids: [id] },
      steps: [{ field: 'price', do: { verb: 'set', value: 12_000 } }],
      send: false,
    });
    // It stands and waits for what is held here.
    const waiting = sql`select count(*) as count from information_schema.processlist where id <> connection_id() and info like '%for update%' and info like ${`%(${id})%`} and time_ms > 30`;
    await until(
      async () => rowsOf<{ count: number }>(await db.execute(waiting)),
      ([one]) => Number(one?.count) > 0,
      10_000,
    );
  });
  await edit;
  expect(await stateOn(id, shop)).toBe('changed');
});
