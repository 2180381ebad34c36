import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { consignment, dispatch } from '../../../src/db/schema';
import { systemActor } from '../../../src/services/access/actor';
import { tellDispatches } from '../../../src/services/consignments/tell-dispatches';
import { recordSale } from '../../../src/services/stock/record-sale';
import { storeCancelled } from '../../../src/services/stock/store-cancelled';
import {
  consignmentOf,
  newConsignment,
  pack,
  placesOf,
  shelfOf,
  stockOf,
  warehouseAccount,
} from '../../support/consignments';
import { comesTo, publishItems, sheet } from '../../support/items';
import { accountOf, call, control, type MarketListing, marketListings, until } from '../../support/stack';

/** An order line of somebody who bought on another marketplace. */
const anOrder = {
  line: 0,
  rawState: null,
  remoteListingId: 'nobody-knows',
  title: 'A field guide',
  unitPrice: 1_900,
  total: 3_800,
  fee: 0,
  buyerPostage: 0,
  discount: 0,
  parcelShare: 1,
  label: 0,
  collected: false,
  personal: null,
  currency: 'EUR',
  buyerTown: 'Osterlund',
  variation: null,
  cancelled: false,
};

type StockThere = { accounts: { accountId: number; rows: { sku: string; ours: number; theirs: number }[] }[] };

type Listed = MarketListing & { data: { ships: string } };

afterAll(closeDatabase);
afterEach(() => control('crateway', 'warehouse', { warehouse: 'HB', closed: false }));

const ok = async <T>(answer: Promise<{ status: number; body: T }>): Promise<T> => {
  const { status, body } = await answer;
  if (status >= 300) throw new Error(`${status}: ${JSON.stringify(body)}`);
  return body;
};
const post = <T = Record<string, unknown>>(path: string, body: unknown = {}) => ok(call<T>('POST', path, body));
const refused = async (path: string, body: unknown = {}, method = 'POST') => {
  const { status, body: answer } = await call<{ title: string }>(method, path, body);
  return { status, said: answer.title };
};

/** Weighs and measures every box of a consignment. */
async function measure(id: number, grams = 9_000): Promise<void> {
  for (const { id: shipment, version, boxes } of (await consignmentOf(id)).shipments)
    await ok(
      call('PUT', `/shipments/${shipment}/boxes`, {
        baseVersion: version,
        boxes: boxes.map(({ code: _code, ...box }) => ({ ...box, grams, millimetres: [400, 300, 300] })),
      }),
    );
}

/** Chosen, planned over three warehouses, taken, and packed to the last unit. */
async function packed(books: { code: string }[], batch: number, each: number): Promise<number> {
  const id = await newConsignment();
  await post(`/consignments/${id}/units`, { batch });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/consignments/${id}/take`, { plan: plan.planId });
  for (const { code } of books) for (let unit = 0; unit < each; unit++) await pack(id, code);
  return id;
}

test('from a batch to the warehouses: planned, set aside, packed, told, shipped, received short, claimed and paid', async () => {
  const { batch, books } = await shelfOf(3, 4);
  const account = await warehouseAccount();
  const id = await newConsignment({ labelSeconds: 12, hourCost: 1_500 });
  await post(`/consignments/${id}/units`, { batch });
  expect((await consignmentOf(id)).units.map((one) => one.quantity)).toEqual([4, 4, 4]);

  // Asked again it is split otherwise; both stand beside each other, with what they cost.
  const wide = await post<{ planId: string }>(`/consignments/${id}/plans`);
  const few = await post<{ planId: string; placements: unknown[]; costs: { placing: number; labelling: number } }>(
    `/consignments/${id}/plans`,
    { again: wide.planId },
  );
  expect(few.placements).toHaveLength(2);
  expect(few.costs).toMatchObject({ placing: 12 * 12, labelling: 60 });
  const { plans } = await consignmentOf(id);
  expect(plans.map((one) => one.placements.length)).toEqual([3, 2]);
  expect(plans[0]?.costs).toMatchObject({ placing: 0, postage: expect.any(Number) });

  await post(`/consignments/${id}/take`, { plan: wide.planId });
  await post(`/consignments/${id}/take`, { plan: wide.planId }); // told twice it is taken once
  expect((await consignmentOf(id)).shipments).toHaveLength(3);
  for (const one of books) expect(await placesOf(one.id)).toEqual({ here: 0, aside: 4, way: 0, there: 0 });

  // Packed by scanning, by barcode or stock number; sent twice it is one unit.
  const key = randomUUID();
  const one = await pack(id, books[0]?.code ?? '', key);
  expect(await pack(id, books[0]?.code ?? '', key)).toEqual(one);
  expect(one).toMatchObject({ is: 'placed', left: 11, to: { box: 1 } });
  expect(await pack(id, 'NETDOU')).toMatchObject({ is: 'undone', left: 12 });
  for (const { sku } of books)
    for (let unit = 0; unit < 4; unit++) expect(await pack(id, sku)).toMatchObject({ is: 'placed' });
  expect(await pack(id, books[0]?.sku ?? '')).toMatchObject({
    is: 'refused',
    message: expect.stringContaining('too many'),
  });
  expect(await pack(id, 'nothing of ours')).toMatchObject({ is: 'refused', left: 0 });

  const { shipments } = await consignmentOf(id);
  const [shipment] = shipments;
  if (!shipment) throw new Error('no shipment');
  expect((await refused(`/shipments/${shipment.id}/tell`)).said).toContain('Box 1 is not weighed yet');
  await measure(id);
  for (const { id: each } of shipments) {
    await post(`/shipments/${each}/tell`);
    const { quotes } = await ok(call<{ quotes: { amount: number }[] }>('GET', `/shipments/${each}/quotes`));
    expect(quotes.length).toBeGreaterThan(0);
    const ship = { carrier: 'Ferrow', postage: 600, tracking: [`TR-${each}`] };
    await post(`/shipments/${each}/ship`, ship);
    await refused(`/shipments/${each}/ship`, ship);
  }
  for (const one of books) expect(await placesOf(one.id)).toEqual({ here: 0, aside: 0, way: 4, there: 0 });
  // The way costs 3 × 6.00 and 12 × 0.05 of one's own time: 1.55 a unit.
  expect((await sheet(books[1]?.id ?? 0)).item.cost).toBe(200 + 155);

  // They count one too few of one number at one warehouse.
  const short = shipment.units[0]?.sku ?? '';
  for (const { remoteId } of shipments)
    await control('crateway', 'receive', {
      shipment: remoteId,
      short: remoteId === shipment.remoteId ? `${short}:1` : '',
    });
  for (const { id: each } of shipments) await post(`/shipments/${each}/follow`);
  const counted = (await consignmentOf(id)).shipments.find((one) => one.id === shipment.id);
  expect(counted).toMatchObject({ state: 'received', missing: [{ sku: short, missing: 1 }] });
  const item = books.find((one) => one.sku === short);
  expect(await placesOf(item?.id ?? 0)).toEqual({ here: 0, aside: 0, way: 1, there: 3 });

  expect((await refused(`/shipments/${shipment.id}/claims`, { sku: short, quantity: 2, note: 'x' })).said).toContain(
    '1 of',
  );
  await post(`/shipments/${shipment.id}/claims`, { sku: short, quantity: 1, note: 'Packed and weighed with four' });
  expect((await refused(`/shipments/${shipment.id}/claims`, { sku: short, quantity: 1, note: 'x' })).said).toContain(
    '0 of',
  );
  await control('crateway', 'claims', { shipment: shipment.remoteId, answer: 'paid' });
  await post(`/shipments/${shipment.id}/follow`);
  const settled = await consignmentOf(id);
  expect(settled.state).toBe('settled');
  expect(settled.shipments.find((one) => one.id === shipment.id)).toMatchObject({
    state: 'settled',
    lost: { [short]: 1 },
    claims: [{ sku: short, quantity: 1, answer: 'paid', amount: expect.any(Number) }],
  });
  expect(await placesOf(item?.id ?? 0)).toEqual({ here: 0, aside: 0, way: 0, there: 3 });
  const { movements, offered } = await stockOf(item?.id ?? 0);
  expect(movements.map((one) => one.reason)).toEqual(
    expect.arrayContaining(['set-aside', 'shipped', 'received', 'lost']),
  );
  // Both sides tell the same of what lies there, and what a month of it costs.
  const { accounts: shops } = await ok(call<StockThere>('GET', '/consignments/stock'));
  const lying = shops.find((one) => one.accountId === account)?.rows.find((one) => one.sku === short);
  expect(lying).toMatchObject({ ours: 3, theirs: 3, monthly: expect.any(Number) });
  // What lies there is what is sold there, and nowhere else.
  expect(offered.find((one) => one.accountId === account)?.offered ?? 3).toBe(3);
}, 180_000);

test('what lies there is sold there: a sale lowers it, called off it is there again, and nothing is offered of what is not', async () => {
  const { batch, books } = await shelfOf(1, 5);
  const [book] = books;
  if (!book) throw new Error('no book');
  const account = await warehouseAccount();
  const { version } = (await sheet(book.id)).item;
  await ok(call('PATCH', `/items/${book.id}`, { patch: { price: 1_900 }, baseVersion: version }));
  // Two stay here.
  const id = await newConsignment();
  await post(`/consignments/${id}/units`, { batch });
  await post(`/consignments/${id}/units`, { set: { item: book.id, quantity: 3 } });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/consignments/${id}/take`, { plan: plan.planId });
  for (let unit = 0; unit < 3; unit++) await pack(id, book.sku);
  await measure(id, 2_000);
  const { shipments } = await consignmentOf(id);
  await publishItems([book.id], [account]);
  await comesTo(book.id, account, 'live');
  const there = async () => (await marketListings('crateway', book.sku))[0] as Listed | undefined;
  expect((await there())?.summary.quantity).toBe(2);
  for (const { id: shipment, remoteId } of shipments) {
    await post(`/shipments/${shipment}/tell`);
    await post(`/shipments/${shipment}/ship`, { carrier: 'Ferrow', postage: 0, tracking: ['T'] });
    await control('crateway', 'receive', { shipment: remoteId });
    await post(`/shipments/${shipment}/follow`);
  }
  const listed = await until(there, (one) => one?.summary.quantity === 3 && one.data.ships === 'warehouse');
  await control('crateway', 'buy', { listing: listed?.id, quantity: 2 });
  await until(
    () => placesOf(book.id),
    (places) => places.there === 1,
  );
  expect((await placesOf(book.id)).here).toBe(2);
  const { sales } = await ok(call<{ sales: { id: number; sku: string; postage: number }[] }>('GET', '/sales'));
  const sale = sales.find((one) => one.sku === book.sku);
  expect(sale?.postage).toBe(0); // they send it, for their fee
  await post(`/sales/${sale?.id}/cancel`);
  await until(
    () => placesOf(book.id),
    (places) => places.there === 3 && places.here === 2,
  );
}, 120_000);

test('what is sold elsewhere is sent by the warehouse where its terms and the account allow it, for the fee of its size', async () => {
  const { batch, books } = await shelfOf(1, 2);
  const [book] = books;
  if (!book) throw new Error('no book');
  const [account, other] = [await warehouseAccount(), await accountOf('Shopfront')];
  const hallowick = await accountOf('Hallowick');
  expect((await refused(`/accounts/${other}/pace`, { servedBy: hallowick }, 'PUT')).said).toContain('sends nothing');
  const { version } = (await sheet(book.id)).item;
  await ok(call('PATCH', `/items/${book.id}`, { patch: { price: 1_900 }, baseVersion: version }));
  const id = await newConsignment();
  await post(`/consignments/${id}/units`, { batch });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/consignments/${id}/take`, { plan: plan.planId });
  for (let unit = 0; unit < 2; unit++) await pack(id, book.sku);
  await measure(id, 2_000);
  for (const { id: shipment, remoteId } of (await consignmentOf(id)).shipments) {
    await post(`/shipments/${shipment}/tell`);
    await post(`/shipments/${shipment}/ship`, { carrier: 'Ferrow', postage: 0, tracking: ['T'] });
    await control('crateway', 'receive', { shipment: remoteId });
    await post(`/shipments/${shipment}/follow`);
  }
  const offeredBy = async (shop: number) =>
    (await stockOf(book.id)).offered.find((one) => one.accountId === shop)?.offered ?? 0;
  try {
    expect(await offeredBy(other)).toBe(0);
    await ok(call('PUT', `/accounts/${other}/pace`, { servedBy: account }));
    await until(
      () => offeredBy(other),
      (units) => units === 2,
    );
    // One unit comes back here: that is sold first, the other one is sent from there.
    await post(`/items/${book.id}/stock`, { how: 'add', units: 1, reason: 'returned' });
    const order = {
      ...anOrder,
      orderId: `M-${Date.now()}`,
      sku: book.sku,
      quantity: 2,
      soldAt: new Date(),
      changedAt: new Date(),
    };
    await recordSale(other, order);
    expect(await placesOf(book.id)).toEqual({ here: 0, aside: 0, way: 0, there: 1 });
    await tellDispatches();
    await tellDispatches();
    const [told] = await database().select().from(dispatch).where(eq(dispatch.itemId, book.id));
    expect(told).toMatchObject({ state: 'sent', quantity: 1, tracking: expect.stringMatching(/^CW/) });
    const { sales } = await ok(call<{ sales: { id: number; sku: string; postage: number }[] }>('GET', '/sales'));
    const sale = sales.find((one) => one.sku === book.sku);
    expect(sale?.postage).toBeGreaterThanOrEqual(265 + 90);
    // Called off, each unit goes back to where it was.
    await storeCancelled(systemActor, sale?.id ?? 0);
    expect(await placesOf(book.id)).toEqual({ here: 1, aside: 0, way: 0, there: 2 });
    await tellDispatches();
    expect((await database().select().from(dispatch).where(eq(dispatch.itemId, book.id)))[0]?.state).toBe('off');
  } finally {
    await ok(call('PUT', `/accounts/${other}/pace`, { servedBy: null }));
  }
}, 120_000);

test('a plan that has lapsed is not taken', async () => {
  const { batch, books } = await shelfOf(1, 1);
  const id = await newConsignment();
  await post(`/consignments/${id}/units`, { batch });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  const [row] = await database().select().from(consignment).where(eq(consignment.id, id));
  const plans = (row?.plans ?? []).map((one) => ({ ...one, expiresAt: new Date(Date.now() - 1_000).toISOString() }));
  await database().update(consignment).set({ plans }).where(eq(consignment.id, id));
  expect((await refused(`/consignments/${id}/take`, { plan: plan.planId })).said).toBe('This plan has lapsed');
  expect((await placesOf(books[0]?.id ?? 0)).here).toBe(1);
}, 60_000);

test('two pack one shipment at the same time, and a box that is full by number begins the next', async () => {
  const { batch, books } = await shelfOf(1, 9);
  const id = await newConsignment({ boxUnits: 2 });
  await post(`/consignments/${id}/units`, { batch });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/consignments/${id}/take`, { plan: plan.planId });
  const done = await Promise.all(Array.from({ length: 9 }, () => pack(id, books[0]?.code ?? '')));
  expect(done.every((one) => one.is === 'placed')).toBe(true);
  const { shipments } = await consignmentOf(id);
  for (const { units, boxes } of shipments) {
    expect(units.every((one) => one.packed === one.quantity)).toBe(true);
    expect(boxes.map((box) => Object.values(box.contents).reduce((sum, one) => sum + one, 0))).toEqual([2, 1]);
  }
  // The label of another box than the one that was named is told at once.
  const [shipment, other] = shipments;
  const last = (await consignmentOf(id)).packed[0];
  const right = shipments.find((one) => one.warehouseName === last?.warehouse);
  const wrong = right === shipment ? other : shipment;
  expect(await pack(id, right?.boxes.find((box) => box.number === last?.box)?.code ?? '')).toMatchObject({
    is: 'right',
  });
  expect(await pack(id, wrong?.boxes[0]?.code ?? '')).toMatchObject({
    is: 'wrong',
    message: expect.stringContaining('Wrong box'),
  });
}, 120_000);

/** Chosen, planned over three warehouses, taken, packed, told and on the way. */
async function onTheWay(books: { code: string }[], batch: number, each: number): Promise<number> {
  const id = await packed(books, batch, each);
  await measure(id);
  for (const { id: shipment } of (await consignmentOf(id)).shipments) {
    await post(`/shipments/${shipment}/tell`);
    await post(`/shipments/${shipment}/ship`, { carrier: 'Ferrow', postage: 600, tracking: [`TR-${shipment}`] });
  }
  return id;
}

test('what was given up and is found after all lies there, and is not lost any more', async () => {
  const { batch, books } = await shelfOf(2, 3);
  const id = await onTheWay(books, batch, 3);
  const shipment = (await consignmentOf(id)).shipments.find((one) => one.units.length === 2);
  if (!shipment) throw new Error('no warehouse gets both');
  const skus = shipment.units.map((one) => one.sku);
  const short = skus.map((sku) => `${sku}:1`).join(', ');
  await control('crateway', 'receive', { shipment: shipment.remoteId, short });
  await post(`/shipments/${shipment.id}/follow`);
  for (const sku of skus)
    await post(`/shipments/${shipment.id}/claims`, { sku, quantity: 1, note: 'Weighed with all of them' });
  await post(`/shipments/${shipment.id}/lost`, { sku: skus[0] });
  const item = books.find((one) => one.sku === skus[0])?.id ?? 0;
  const before = await placesOf(item);
  await control('crateway', 'claims', { shipment: shipment.remoteId, answer: 'found' });
  await post(`/shipments/${shipment.id}/follow`);
  const now = (await consignmentOf(id)).shipments.find((one) => one.id === shipment.id);
  expect(now).toMatchObject({ state: 'settled', missing: [], lost: { [skus[0] ?? '']: 0 } });
  expect(await placesOf(item)).toEqual({ ...before, there: before.there + 1 });
}, 120_000);

test('a plan whose units are sold while it is taken is let go again: fewer of them can be sent in', async () => {
  const { books } = await shelfOf(1, 2);
  const item = books[0]?.id ?? 0;
  const id = await newConsignment();
  await post(`/consignments/${id}/units`, { set: { item, quantity: 2 } });
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await control('crateway', 'fault', { kind: 'slow', times: 1, ms: 2_500, method: 'POST' });
  const taking = refused(`/consignments/${id}/take`, { plan: plan.planId });
  // Marked as the one that is taken: what is here was looked at before that.
  await until(
    async () => (await database().select().from(consignment).where(eq(consignment.id, id)))[0]?.planId,
    (planId) => planId === plan.planId,
  );
  await post(`/items/${item}/stock`, { how: 'add', units: -1, reason: 'corrected' });
  expect((await taking).said).toContain('Only 1 in stock');
  expect(await placesOf(item)).toEqual({ here: 1, aside: 0, way: 0, there: 0 });
  await post(`/consignments/${id}/units`, { set: { item, quantity: 1 } });
  const fewer = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/consignments/${id}/take`, { plan: fewer.planId });
  expect(await placesOf(item)).toEqual({ here: 0, aside: 1, way: 0, there: 0 });
}, 120_000);

test('a warehouse that closes between plan and box: the shipment is called off, and what was set aside is here again', async () => {
  const { batch, books } = await shelfOf(1, 3);
  const id = await packed(books, batch, 3);
  await measure(id, 2_000);
  const closed = (await consignmentOf(id)).shipments.find((one) => one.warehouse === 'HB');
  await control('crateway', 'warehouse', { warehouse: 'HB', closed: true });
  expect(await refused(`/shipments/${closed?.id}/tell`)).toMatchObject({
    status: 409,
    said: expect.stringContaining('takes nothing in any more'),
  });
  expect((await consignmentOf(id)).shipments.find((one) => one.id === closed?.id)?.isClosed).toBe(true);
  await post(`/shipments/${closed?.id}/off`);
  expect(await placesOf(books[0]?.id ?? 0)).toEqual({ here: 1, aside: 2, way: 0, there: 0 });
  await post(`/shipments/${closed?.id}/off`);
  expect((await placesOf(books[0]?.id ?? 0)).here).toBe(1);
}, 120_000);

test('more than is here, what is sold meanwhile, and what belongs to no product are refused at their place', async () => {
  const { books } = await shelfOf(1, 2);
  const item = books[0]?.id ?? 0;
  const id = await newConsignment();
  expect((await refused(`/consignments/${id}/plans`)).said).toBe('Nothing is chosen yet');
  expect((await refused(`/consignments/${id}/units`, { set: { item, quantity: 3 } })).said).toContain('2 of');
  expect((await refused(`/consignments/${id}/units`, { code: 'no such number' })).status).toBe(404);
  await post(`/consignments/${id}/units`, { code: books[0]?.sku });
  await post(`/consignments/${id}/units`, { code: books[0]?.code });
  expect((await consignmentOf(id)).units.map((one) => one.quantity)).toEqual([2]);
  const plan = await post<{ planId: string }>(`/consignments/${id}/plans`);
  await post(`/items/${item}/stock`, { how: 'add', units: -1, reason: 'corrected' });
  expect((await refused(`/consignments/${id}/take`, { plan: plan.planId })).said).toContain('1 of');
  expect(await placesOf(item)).toEqual({ here: 1, aside: 0, way: 0, there: 0 });
  await post(`/consignments/${id}/off`);
  expect((await consignmentOf(id)).state).toBe('off');
}, 120_000);

test('box contents out of a file; rows that cannot be meant are named and nothing is taken', async () => {
  const { batch, books } = await shelfOf(1, 3);
  const id = await packed(books, batch, 1);
  const { shipments } = await consignmentOf(id);
  const empty = shipments.find((one) => one.boxes.length === 0);
  const { version = 0, id: shipment } = empty ?? {};
  const sku = books[0]?.sku;
  expect(
    (await refused(`/shipments/${shipment}/contents`, { baseVersion: version, text: 'box;number;units\n1;X;1' })).said,
  ).toBe('Row 2: “X” is not in this shipment');
  await post(`/shipments/${shipment}/contents`, { baseVersion: version, text: `box;stock number;units\n1;${sku};1` });
  expect((await refused(`/shipments/${shipment}/contents`, { baseVersion: version, text: 'a' })).status).toBe(422);
  const now = (await consignmentOf(id)).shipments.find((one) => one.id === shipment);
  expect(now?.boxes).toMatchObject([{ number: 1, contents: { [sku ?? '']: 1 } }]);
  expect((await refused(`/shipments/${shipment}/boxes`, { baseVersion: version, boxes: [] }, 'PUT')).said).toContain(
    'meanwhile',
  );
}, 120_000);
