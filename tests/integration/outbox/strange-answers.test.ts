import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { remotePhoto } from '../../../src/db/schema';
import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, accounts, call, control, marketListings, until } from '../../support/stack';

type Job = { id: number; state: string; attempts: number; message: string | null };
type Sale = { id: number; orderId: string; quantity: number; state: string; rawState: string | null; itemId: number };
const jobsOf = async (item: number, account: number) =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item}&account=${account}`)).body.jobs;
const there = async (market: string, sku: string) => (await marketListings(market, sku))[0];
const live = (id: number, account: number, ms = 45_000) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    ms,
  );
const unitsOf = async (id: number) =>
  (await call<{ item: { quantity: number } }>('GET', `/items/${id}`)).body.item.quantity;
const salesOf = async (id: number) => (await call<{ sales: Sale[] }>('GET', `/sales?item=${id}`)).body.sales;
const sell = (id: number) => call('POST', `/items/${id}/sold`, { quantity: 1, unitPrice: 14_000 });
/** The marketplace has its photo by then, so that the next upload is the listing itself. */
const known = async (account: number) => {
  const { id } = await readyItem();
  await publishItems([id], [account]);
  await live(id, account);
};

let hallowick: number;
let pippet: number;
let shop: number;
beforeAll(async () => {
  [hallowick, pippet, shop] = (await Promise.all(['Hallowick', 'Pippet', 'Shopfront'].map(accountOf))) as [
    number,
    number,
    number,
  ]; // as many as names
});
afterEach(() => Promise.all(['hallowick', 'pippet', 'shopfront'].map((market) => control(market, 'calm'))));
afterAll(closeDatabase);

/** An item that was made there without an answer, whose looks fail, and whose creation was taken out of the outbox. */
async function givenUp(): Promise<{ id: number; sku: string }> {
  await known(pippet);
  const { id, sku } = await readyItem();
  await control('pippet', 'fault', { kind: 'drop-after', times: 1, method: 'POST' });
  await control('pippet', 'fault', { kind: 'drop-before', times: 500, method: 'GET' });
  await publishItems([id], [pippet]);
  const [job] = await until(
    () => jobsOf(id, pippet),
    ([one]) => one?.state === 'waiting' && one.attempts > 0,
  );
  await call('POST', '/jobs/skip', { jobs: [job?.id] });
  return { id, sku };
}

test('what may stand there after its creation was taken out is ended by a sale all the same', async () => {
  const { id, sku } = await givenUp();
  expect((await there('pippet', sku))?.state).toBe('live');
  await sell(id);
  await control('pippet', 'calm');
  await until(
    () => there('pippet', sku),
    (one) => one?.state === 'ended',
    60_000,
  );
});

test('what may stand there and was given up is looked for by itself', async () => {
  const { id, sku } = await givenUp();
  await control('pippet', 'calm');
  await live(id, pippet, 120_000);
  expect(await marketListings('pippet', sku)).toHaveLength(1);
}, 150_000);

test('reads that lag behind lead to no second listing, and a fresh one does not count as gone', async () => {
  await known(pippet);
  const { id, sku } = await readyItem();
  await control('pippet', 'odd', { lagMs: 2_000 });
  await control('pippet', 'fault', { kind: 'drop-after', times: 1, method: 'POST' });
  await publishItems([id], [pippet]);
  await until(
    () => there('pippet', sku),
    (one) => one !== undefined,
  );
  await live(id, pippet);
  expect(await marketListings('pippet', sku)).toHaveLength(1);
  const fresh = await readyItem();
  await publishItems([fresh.id], [pippet]);
  await live(fresh.id, pippet);
  await call('POST', `/accounts/${pippet}/compare`, {});
  expect(await stateOn(fresh.id, pippet)).toBe('live');
});

test('a look that shows what stood there before the last change is no change of theirs', async () => {
  const { id, sku } = await readyItem();
  await publishItems([id], [hallowick]);
  await live(id, hallowick);
  await control('hallowick', 'odd', { lagMs: 2_000 });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 13_700 } }],
    send: true,
  });
  await until(
    () => there('hallowick', sku),
    (one) => one?.summary.price === 13_700,
  );
  await live(id, hallowick);
  await call('POST', `/accounts/${hallowick}/compare`, {});
  expect(await stateOn(id, hallowick)).toBe('live');
});

test('an order of several lines lowers the stock of each, and is called off as a whole', async () => {
  const [one, two] = await Promise.all([readyItem({}, 3), readyItem({}, 5)]);
  await publishItems([one.id, two.id], [hallowick]);
  await Promise.all([live(one.id, hallowick), live(two.id, hallowick)]);
  const bought = await control('hallowick', 'buy-together', {
    lines: [
      { reference: one.sku, quantity: 1 },
      { reference: two.sku, quantity: 2 },
    ],
  });
  expect(bought.error).toBeUndefined();
  await until(
    () => unitsOf(two.id),
    (units) => units === 3,
  );
  expect(await unitsOf(one.id)).toBe(2);
  const [sale] = await salesOf(two.id);
  expect(sale).toMatchObject({ orderId: bought.order, quantity: 2 });
  await call('POST', `/sales/${sale?.id}/cancel`, {});
  expect([await unitsOf(one.id), await unitsOf(two.id)]).toEqual([3, 5]);
});

test('an order in a state that is not known holds stock, is shown in their words, and follows them', async () => {
  const { id, sku } = await readyItem({}, 4);
  await publishItems([id], [hallowick]);
  await live(id, hallowick);
  await control('hallowick', 'odd', { orderState: 'unpaid' });
  const { order } = await control('hallowick', 'buy', { reference: sku, quantity: 1 });
  const [sale] = await until(
    () => salesOf(id),
    (sales) => sales.length === 1,
  );
  expect(sale).toMatchObject({ orderId: order, state: 'paid', rawState: 'unpaid' });
  expect(await unitsOf(id)).toBe(3);
  await control('hallowick', 'order-state', { order, state: 'partly-refunded' });
  await until(
    () => salesOf(id),
    ([one]) => one?.rawState === 'partly-refunded',
  );
  await control('hallowick', 'order-state', { order, state: 'cancelled' });
  await until(
    () => unitsOf(id),
    (units) => units === 4,
  );
});

test('a lock in other words, and a pause as a date, is a lock and no lost access', async () => {
  const { id, sku } = await readyItem();
  const shops = await accounts();
  const seller = shops.find((one) => one.id === shop)?.remoteName;
  await control('shopfront', 'odd', { otherWords: true });
  await control('shopfront', 'lock', { seller, minutes: 0.05 });
  await control('shopfront', 'fault', { kind: 'error-500', times: 1 });
  await publishItems([id], [shop]);
  await live(id, shop);
  expect(await marketListings('shopfront', sku)).toHaveLength(1);
  const { body } = await call<{ accounts: { id: number; state: string }[] }>('GET', '/accounts');
  expect(body.accounts.find((one) => one.id === shop)?.state).toBe('connected');
});

test('a change that is answered and not taken is told, and tried until it is', async () => {
  const { id, sku } = await readyItem();
  await publishItems([id], [hallowick]);
  await live(id, hallowick);
  await control('hallowick', 'odd', { ignores: ['price'] });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 12_300 } }],
    send: true,
  });
  const [job] = await until(
    () => jobsOf(id, hallowick),
    ([one]) => Boolean(one?.message?.includes('left')),
  );
  expect(job?.message).toContain('left price as it was');
  await control('hallowick', 'calm');
  await until(
    () => there('hallowick', sku),
    (one) => one?.summary.price === 12_300,
    60_000,
  );
  await live(id, hallowick);
}, 90_000);

test('a value that is rewritten after it was confirmed is shown as changed there', async () => {
  const { id, sku } = await readyItem();
  await publishItems([id], [hallowick]);
  await live(id, hallowick);
  await control('hallowick', 'odd', { rewrites: ['heading'] });
  await control('hallowick', 'house-rules', { reference: sku });
  await until(
    () => stateOn(id, hallowick),
    (state) => state === 'changed',
  );
});

test('refresh tokens that are good once are never used twice, and uploads that are forgotten are made again', async () => {
  await known(hallowick);
  await database()
    .update(remotePhoto)
    .set({ at: new Date(Date.now() - 86_400_000) })
    .where(eq(remotePhoto.accountId, hallowick));
  await control('hallowick', 'odd', { tokensOnce: true, uploadsMs: 60_000 });
  for (let round = 0; round < 2; round++) {
    const some = await Promise.all([readyItem(), readyItem(), readyItem()]);
    await control('hallowick', 'expire');
    await publishItems(
      some.map((one) => one.id),
      [hallowick],
    );
    for (const one of some) await live(one.id, hallowick);
  }
  const { body } = await call<{ accounts: { id: number; state: string }[] }>('GET', '/accounts');
  expect(body.accounts.find((one) => one.id === hallowick)?.state).toBe('connected');
});
