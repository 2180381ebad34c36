import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { and, eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { listing } from '../../../src/db/schema';
import { jpeg, publishItems, readyFilm, readyItem, stateOn, upload } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

type Job = { id: number; state: string; attempts: number; message: string | null; fix: string | null };
const jobsOf = async (item: number, account: number) =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item}&account=${account}`)).body.jobs;
const wantedOn = async (item: number, account: number) =>
  (
    await database()
      .select({ wanted: listing.wanted })
      .from(listing)
      .where(and(eq(listing.itemId, item), eq(listing.accountId, account)))
  )[0]?.wanted;
afterAll(closeDatabase);
const there = async (market: string, sku: string) => (await marketListings(market, sku))[0];
const live = (id: number, account: number) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    45_000,
  );
const quantityThere = (market: string, sku: string, quantity: number) =>
  until(
    () => there(market, sku),
    (one) => one?.summary.quantity === quantity,
    45_000,
  );
const set = (id: number, units: number) => call('POST', `/items/${id}/stock`, { how: 'set', units, reason: 'counted' });
const sell = (id: number, more: Record<string, unknown> = {}) =>
  call('POST', `/items/${id}/sold`, { quantity: 1, unitPrice: 14_000, ...more });

let shop: number;
let hallowick: number;
let pippet: number;
beforeAll(async () => {
  [shop, hallowick, pippet] = (await Promise.all(['Shopfront', 'Hallowick', 'Pippet'].map(accountOf))) as [
    number,
    number,
    number,
  ]; // as many as names
});
afterEach(() => Promise.all(['shopfront', 'hallowick', 'pippet'].map((market) => control(market, 'calm'))));

const axes = [
  { name: 'Colour', values: ['Black', 'Tan'] },
  { name: 'Length', values: ['90 cm', '110 cm'] },
];
const rows = (quantity: number) =>
  ['Black', 'Tan'].flatMap((colour) =>
    ['90 cm', '110 cm'].map((length) => ({
      values: [colour, length],
      on: true,
      sku: '',
      quantity,
      price: null,
      barcode: '',
    })),
  );
type Row = { values: string[]; quantity: number };
const unitsOf = async (id: number) =>
  (await call<{ item: { quantity: number; variations: Row[] } }>('GET', `/items/${id}`)).body.item;

test('a sale lowers the combination that was sold, also where its listing was narrowed and the order names none', async () => {
  const { id, sku } = await readyItem({ axes, variations: rows(3) });
  await call('PUT', `/items/${id}/listings/${pippet}`, {
    field: 'variations',
    value: { Colour: 'Tan', Length: '110 cm' },
  });
  await publishItems([id], [pippet]);
  await live(id, pippet);
  const listed = await there('pippet', sku);
  const bought = await control('pippet', 'buy', { listing: listed?.id, quantity: 1 });
  expect(bought.error).toBeUndefined();
  const now = await until(
    () => unitsOf(id),
    (item) => item.quantity === 11,
  );
  expect(now.variations.find((row) => row.values.join() === 'Tan,110 cm')?.quantity).toBe(2);
  expect(now.variations.reduce((sum, row) => sum + row.quantity, 0)).toBe(11);
  // Cancelling is the exact opposite.
  const { body } = await call<{ sales: { id: number; variation: string | null }[] }>('GET', `/sales?item=${id}`);
  expect(body.sales[0]?.variation).toBe('Tan, 110 cm');
  expect((await call('POST', `/sales/${body.sales[0]?.id}/cancel`, {})).body).toMatchObject({ quantity: 12 });
  const back = await unitsOf(id);
  expect(back.quantity).toBe(12);
  expect(back.variations.every((row) => row.quantity === 3)).toBe(true);
});

test('an update that was not answered leaves its fields unknown: what is wanted by then is sent, whatever it was before', async () => {
  const { id, sku } = await readyItem({}, 4);
  await publishItems([id], [shop]);
  await live(id, shop);
  expect((await there('shopfront', sku))?.summary.quantity).toBe(4);
  // Five are sent and taken, and the answer is lost; one is sold before it is tried again.
  await control('shopfront', 'fault', { kind: 'drop-after', times: 1, method: 'PUT' });
  await control('shopfront', 'fault', { kind: 'drop-after', times: 1, method: 'PATCH' });
  await control('shopfront', 'fault', { kind: 'drop-after', times: 1, method: 'POST' });
  await set(id, 5);
  await quantityThere('shopfront', sku, 5);
  await sell(id);
  await control('shopfront', 'calm');
  await quantityThere('shopfront', sku, 4);
  await live(id, shop);
});

test('what is sold while its publishing waits is not published, and nobody is asked', async () => {
  const { id, sku } = await readyItem();
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: true });
  await publishItems([id], [shop]);
  await sell(id);
  await call('POST', '/accounts/hold', { accounts: [shop], stopped: false });
  const [job] = await until(
    () => jobsOf(id, shop),
    ([one]) => one?.state === 'done' || one?.state === 'failed',
  );
  expect(job).toMatchObject({ state: 'done', message: 'It is sold out, so it is not listed' });
  expect(await stateOn(id, shop)).not.toBe('attention');
  expect(await marketListings('shopfront', sku)).toHaveLength(0);
  // It is a draft again: more units do not publish it behind anybody's back, and it can be published as any other.
  expect(await wantedOn(id, shop)).toBe('draft');
  await call('POST', `/items/${id}/stock`, { how: 'set', units: 2 });
  expect(await stateOn(id, shop)).toBe('draft');
  await publishItems([id], [shop]);
  await live(id, shop);
});

test('an end that does not get through is tried on, and said on screen; a retry by hand is done at once', async () => {
  const { id, sku } = await readyItem();
  await publishItems([id], [pippet]);
  await live(id, pippet);
  const listed = await there('pippet', sku);
  await control('pippet', 'offer', { listing: listed?.id, amount: 5_000 });
  await sell(id);
  await until(
    () => stateOn(id, pippet),
    (state) => state === 'attention',
  );
  const [job] = await jobsOf(id, pippet);
  expect(job?.state).toBe('waiting');
  expect(job?.message).toContain('open offer');
  const { body } = await call<{ causes: { message: string; accountId: number }[] }>('GET', '/causes');
  const cause = body.causes.find((one) => one.accountId === pippet && one.message === job?.message);
  expect(cause).toBeDefined();
  // It is nothing that is just being sent.
  const { lanes } = (
    await call<{ lanes: { accountId: number; waiting: number; running: number }[] }>('GET', '/progress')
  ).body;
  expect(lanes.find((one) => one.accountId === pippet)).toMatchObject({ waiting: 0, running: 0 });
  // The offer is settled there: it is asked again by itself.
  await control('pippet', 'withdraw', { listing: listed?.id });
  await call('POST', '/jobs/retry', { jobs: [job?.id] });
  await until(
    () => there('pippet', sku),
    (one) => one?.state !== 'live',
  );
  await until(
    () => stateOn(id, pippet),
    (state) => state !== 'attention',
  );
});

test('a job that fails in our own house fails visibly, and holds up no other one', async () => {
  const [broken, other] = await Promise.all([readyItem(), readyItem()]);
  // A picture of its own, whose file is lost.
  const own = await upload(broken.id, await jpeg(1_111, '#123456'));
  const lost = own.body.hash ?? '';
  await call('PUT', `/items/${broken.id}/photos`, { photos: [lost] });
  for (const file of [lost, `${lost}-market.jpg`])
    rmSync(join(stack.dataFolder, 'photos', lost.slice(0, 2), file), { force: true });
  await control('hallowick', 'calm');
  await publishItems([broken.id, other.id], [hallowick]);
  await live(other.id, hallowick);
  await until(
    () => stateOn(broken.id, hallowick),
    (state) => state === 'attention',
  );
  const [job] = await jobsOf(broken.id, hallowick);
  expect(job).toMatchObject({ state: 'failed', message: 'The file of one of its photos is missing' });
});

test('hearing cannot stand still: more orders at one time than a page holds are all heard', async () => {
  const lotbarn = await accountOf('Lotbarn');
  const { id, sku } = await readyFilm(230);
  await publishItems([id], [lotbarn]);
  await live(id, lotbarn);
  const listed = await there('lotbarn', sku);
  for (let sold = 0; sold < 215; sold++) {
    const answer = await control('lotbarn', 'buy', { listing: listed?.id, quantity: 1 });
    if (answer.error) throw new Error(String(answer.error));
  }
  await until(
    () => unitsOf(id),
    (item) => item.quantity === 15,
    150_000,
  );
  const { body } = await call<{ accounts: { id: number; heardAt: string | null; unheardSince: string | null }[] }>(
    'GET',
    '/accounts',
  );
  const heard = body.accounts.find((one) => one.id === lotbarn);
  expect(heard?.unheardSince).toBeNull();
  expect(Date.now() - Date.parse(heard?.heardAt ?? '')).toBeLessThan(60_000);
}, 240_000);

test('what is seen there counts: a quantity above what we offer is put right', async () => {
  const { id, sku } = await readyItem({}, 2);
  await publishItems([id], [hallowick]);
  await live(id, hallowick);
  const listed = await there('hallowick', sku);
  await control('hallowick', 'change', { listing: listed?.id, set: { stock: 9 } });
  await quantityThere('hallowick', sku, 2);
  await live(id, hallowick);
});

test('a marketplace that takes its time over new access keeps no other one waiting', async () => {
  const item = await readyItem();
  await control('hallowick', 'fault', { kind: 'token-slow', times: 1, ms: 12_000 });
  await control('hallowick', 'expire');
  await publishItems([item.id], [hallowick, shop]);
  // Long before the other one has its access.
  await until(
    () => stateOn(item.id, shop),
    (state) => state === 'live',
    8_000,
  );
  expect(await stateOn(item.id, hallowick)).toBe('waiting');
  await live(item.id, hallowick);
  expect(await marketListings('hallowick', item.sku)).toHaveLength(1);
});
