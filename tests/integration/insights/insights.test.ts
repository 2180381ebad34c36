import { randomUUID } from 'node:crypto';
import { and, eq, gte, inArray, lt, sql } from 'drizzle-orm';
import { effectOf, type InsightTable } from '../../../src/core/insight';
import { convertBack, homeCurrency } from '../../../src/core/measure';
import { netOfSale } from '../../../src/core/price';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { changeRecord, item, listing, movement, sale } from '../../../src/db/schema';
import { audit } from '../../../src/services/audit/audit';
import { keepUp } from '../../../src/services/insights/keep-up';
import { readyItem } from '../../support/items';
import { accountOf, call, stack } from '../../support/stack';

afterAll(closeDatabase);

type Cells = Record<string, string | number | null>;
type View = { tables: InsightTable[]; isWhole: boolean };
const dayMs = 86_400_000;
const day = (ago: number) => new Date(Date.now() - ago * dayMs).toISOString().slice(0, 10);

/** A table of a view, its rows by the names of their columns. */
async function table(id: string, query: Record<string, string>): Promise<Map<string, Cells>> {
  const { status, body } = await call<View>('GET', `/insights?${new URLSearchParams(query)}`);
  expect(status).toBe(200);
  expect(body.isWhole).toBe(true);
  const found = body.tables.find((one) => one.id === id);
  if (!found) throw new Error(`no table ${id}`);
  return new Map(
    found.rows.map((row) => [
      row.key,
      Object.fromEntries(found.columns.map((column, at) => [column.id, row.cells[at] ?? null])),
    ]),
  );
}

type Sale = typeof sale.$inferSelect;
/** The plain sums of sales, one after the other. */
function byHand(sales: readonly Sale[]) {
  const sums = { pieces: 0, taken: 0, fees: 0, postage: 0, packing: 0, cost: 0, net: 0 };
  for (const one of sales) {
    if (one.state === 'cancelled') continue;
    sums.pieces += one.quantity;
    const net = netOfSale(one);
    if (net === null) continue;
    const home = (amount: number) =>
      one.currency === homeCurrency
        ? amount
        : convertBack(amount, { from: homeCurrency, to: one.currency, millionths: one.rateMillionths ?? 0, date: '' });
    const paid = one.total - one.discount + one.buyerPostage;
    sums.taken += home(paid);
    sums.fees -= home(paid) - home(paid - one.fee);
    sums.postage -= one.postage;
    sums.packing -= one.packing;
    sums.cost -= (one.cost ?? 0) * one.quantity;
    sums.net += net;
  }
  return sums;
}
const salesWithin = (from: string, to: string) =>
  database()
    .select()
    .from(sale)
    .where(and(gte(sale.soldAt, new Date(from)), lt(sale.soldAt, new Date(Date.parse(to) + dayMs))));

describe('money', () => {
  const period = { from: day(400), to: day(5) };

  test('in all, by month, by account and in the time before it is the plain sum, and each row adds up to its net', async () => {
    const sales = await salesWithin(period.from, period.to);
    expect(sales.length).toBeGreaterThan(500);
    expect(new Set(sales.map((one) => one.currency)).size).toBeGreaterThan(1);
    const total = await table('total', { ...period, view: 'money' });
    expect(total.get('now')).toMatchObject(byHand(sales));
    const before = await salesWithin(day(400 + 396), day(401));
    expect(total.get('before')).toMatchObject(byHand(before));
    const months = await table('time', { ...period, view: 'money' });
    expect(months.size).toBeGreaterThan(12);
    for (const [month, cells] of months) {
      expect(cells).toMatchObject(byHand(sales.filter((one) => one.soldAt.toISOString().startsWith(month))));
      const { taken, fees, postage, packing, cost, net } = cells;
      expect(Number(taken) + Number(fees) + Number(postage) + Number(packing) + Number(cost)).toBe(net);
    }
    const accounts = await table('accounts', { ...period, view: 'money' });
    expect(accounts.size).toBeGreaterThan(5);
    for (const [id, cells] of accounts)
      expect(cells).toMatchObject(byHand(sales.filter((one) => String(one.accountId ?? 'hand') === id)));
    const kinds = [...(await table('fees', { ...period, view: 'money' })).values()];
    expect(kinds.reduce((sum, one) => sum + Number(one.amount), 0)).toBe(-Number(total.get('now')?.fees));
  });

  test('narrowed by account and by the one filter, and the items behind it are those', async () => {
    const sales = await salesWithin(period.from, period.to);
    const shop = await accountOf('Shopfront');
    const cameras = await database().select().from(item).where(sql`${item.category} like 'cameras/%'`);
    const ids = new Set(cameras.map((one) => one.id));
    const where = JSON.stringify({ field: 'category', op: 'begins', value: 'cameras' });
    const wanted = sales.filter((one) => one.accountId === shop && ids.has(one.itemId ?? 0));
    expect(wanted.length).toBeGreaterThan(10);
    const query = { ...period, view: 'money', soldOn: String(shop), where };
    expect((await table('total', query)).get('now')).toMatchObject(byHand(wanted));
    type Behind = { items: { id: number; pieces: number; amount: number }[]; count: number };
    const behind = await call<Behind>(
      'GET',
      `/insights/items?${new URLSearchParams({ ...period, soldOn: String(shop), where, limit: '500' })}`,
    );
    const paid = wanted.filter((one) => one.state === 'paid');
    expect(new Set(behind.body.items.map((one) => one.id))).toEqual(new Set(paid.map((one) => one.itemId)));
    expect(behind.body.count).toBe(behind.body.items.length);
    expect(behind.body.items.reduce((sum, one) => sum + one.amount, 0)).toBe(byHand(wanted).net);
  });

  test('as a file it says the same, in plain decimals', async () => {
    const query = { ...period, view: 'money', table: 'accounts', format: 'csv' };
    const answer = await fetch(`${stack.base}/api/v1/insights/file?${new URLSearchParams(query)}`, {
      headers: { authorization: `Bearer ${stack.token}` },
    });
    const [head = '', ...lines] = (await answer.text()).trim().split(/\r?\n/);
    expect(head.split(',').slice(0, 3)).toEqual(['Account', 'Pieces', 'Taken (EUR)']);
    const accounts = await table('accounts', { ...period, view: 'money' });
    expect(lines).toHaveLength(accounts.size);
    const [first] = accounts.values();
    expect(lines[0]?.split(',')[2]).toBe((Number(first?.taken) / 100).toFixed(2));
  });

  test('what cannot be asked is said at its place', async () => {
    const asked = (query: Record<string, string>) => call('GET', `/insights?${new URLSearchParams(query)}`);
    expect((await asked({ from: '2026-02-02', to: '2026-02-01' })).status).toBe(422);
    expect((await asked({ from: 'yesterday', to: '2026-02-01' })).status).toBe(422);
    expect((await asked({ from: '2026-02-01', to: '2026-02-02', where: '{"nonsense":1}' })).status).toBe(422);
    const file = new URLSearchParams({ from: '2026-02-01', to: '2026-02-02', table: 'nothing' });
    expect((await call('GET', `/insights/file?${file}`)).status).toBe(404);
  });
});

describe('stock', () => {
  const only = (sku: string) => JSON.stringify({ field: 'sku', op: 'is', value: sku });
  const query = (sku: string) => ({ view: 'stock', from: day(500), to: day(0), where: only(sku) });

  test('bought, sold, called off, lost: layers follow the ledger, with the day of purchase', async () => {
    const { id, sku } = await readyItem({ boughtOn: day(120), cost: 700, price: 2_000 }, 5);
    const month = day(120).slice(0, 7);
    const seen = async () => ({
      ages: [...(await table('ages', query(sku))).values()].filter((one) => Number(one.pieces) > 0),
      cohort: (await table('cohorts', query(sku))).get(month),
    });
    expect(await seen()).toMatchObject({
      ages: [{ age: '91 to 180 days', items: 1, pieces: 5, tied: 3_500, price: 10_000 }],
      cohort: { pieces: 5, sold: 0, here: 5, through: 0, paid: 3_500, tied: 3_500 },
    });
    const sold = await call<{ saleId: number }>('POST', `/items/${id}/sold`, { quantity: 2, unitPrice: 2_000 });
    await call('POST', `/items/${id}/stock`, { how: 'add', units: -1, reason: 'corrected' });
    await call('POST', `/items/${id}/stock`, { how: 'add', units: 4, reason: 'bought' });
    const now = await seen();
    expect(now.cohort).toMatchObject({ pieces: 5, sold: 2, gone: 1, here: 2, through: 4_000, tied: 1_400 });
    expect(now.ages).toMatchObject([
      { age: 'Up to 30 days', pieces: 4 },
      { age: '91 to 180 days', pieces: 2 },
    ]);
    await call('POST', `/sales/${sold.body.saleId}/cancel`, {});
    expect((await seen()).cohort).toMatchObject({ pieces: 5, sold: 0, gone: 1, here: 4 });
    // Another day of purchase is another month.
    const { version } = (await call<{ item: { version: number } }>('GET', `/items/${id}`)).body.item;
    await call('PATCH', `/items/${id}`, { baseVersion: version, patch: { boughtOn: day(300) } });
    expect((await table('cohorts', query(sku))).get(day(300).slice(0, 7))).toMatchObject({ pieces: 5, here: 4 });
    expect((await seen()).cohort).toBeUndefined();
  });

  test('of the whole shop each item has as much in layers as by its ledger, however many read at once', async () => {
    await Promise.all([keepUp(60_000), keepUp(60_000), keepUp(60_000)]);
    const { found } = await audit({ mend: false });
    expect(found.filter((one) => one.id === 'layers')).toEqual([]);
    // The check finds what it is for.
    const [layer] = rowsOf<{ id: number }>(
      await database().execute(sql`select id from stock_layer where how = 'here' order by id desc limit 1`),
    );
    await database().execute(sql`update stock_layer set units = units + 1 where id = ${layer?.id}`);
    expect((await audit({ mend: false })).found.filter((one) => one.id === 'layers')).toHaveLength(1);
    await database().execute(sql`update stock_layer set units = units - 1 where id = ${layer?.id}`);
  });
});

/** Pieces of a brand of their own that came a hundred days ago, with what became of each after so many days. */
async function piecesOf(
  brand: string,
  some: readonly { soldOn: number | null; cutOn: number | null }[],
): Promise<void> {
  const account = await accountOf('Shopfront');
  const at = (days: number) => new Date(Date.parse(`${day(100 - days)}T12:00:00Z`));
  for (const { soldOn, cutOn } of some) {
    const { id } = await readyItem({ brand, boughtOn: day(100), price: 3_000 }, 1);
    await database()
      .update(movement)
      .set({ at: at(0) })
      .where(eq(movement.itemId, id));
    await database()
      .insert(listing)
      .values({ itemId: id, accountId: account, overrides: {}, wanted: 'draft', liveSince: at(0) })
      .onDuplicateKeyUpdate({ set: { liveSince: at(0) } });
    if (cutOn !== null)
      await database()
        .insert(changeRecord)
        .values({
          itemId: id,
          itemVersion: 1,
          field: 'price',
          from: 3_000,
          to: 2_500,
          why: 'bulk',
          byName: 'a test',
          at: at(cutOn),
        });
    if (soldOn === null) continue;
    await call('POST', `/items/${id}/sold`, { quantity: 1, unitPrice: 2_500 });
    await database()
      .update(movement)
      .set({ at: at(soldOn) })
      .where(and(eq(movement.itemId, id), eq(movement.reason, 'sold')));
  }
  // They were written behind the back of what reads along: it reads listings that are older than its last look once in a while.
  const ids = (await database().select({ id: item.id }).from(item).where(eq(item.brand, brand))).map((one) => one.id);
  await database().execute(sql`update item_milestone set moved_up_to = 0 where item_id in ${ids}`);
  await database().execute(
    sql`update insight_cursor set up_to = (select min(id) - 1 from movement where item_id in ${ids}) where source = 'movements'`,
  );
  expect(await database().select().from(listing).where(inArray(listing.itemId, ids))).not.toHaveLength(0);
  await keepUp(60_000, true);
}
const times = <T>(count: number, one: T): T[] => Array.from({ length: count }, () => one);

test('how fast things go counts what has not sold yet; the share and the median are those of the hand', async () => {
  const brand = `Tarn ${randomUUID().slice(0, 6)}`;
  await piecesOf(brand, [
    ...times(4, { soldOn: 20, cutOn: null }),
    ...times(4, { soldOn: 50, cutOn: null }),
    ...times(4, { soldOn: null, cutOn: null }),
  ]);
  const query = {
    view: 'speed',
    by: 'brand',
    from: day(110),
    to: day(0),
    where: JSON.stringify({ field: 'brand', op: 'is', value: brand }),
  };
  const groups = await table('groups', query);
  // A third is sold by the 20th day; of the eight left half by the 50th: a third is left.
  expect(groups.get(brand)).toMatchObject({ pieces: 12, sold: 8, by30: 3_333, by90: 6_667, median: 50 });
  const curve = [...(await table('curve', query)).values()];
  expect(curve.map(({ day: at, unsold }) => [at, unsold])).toEqual([
    [0, 10_000],
    [20, 6_667],
    [50, 3_333],
  ]);
}, 120_000);

test('whatever a row says, the items behind it add up to it: of every group and every way of grouping', async () => {
  const period = { from: day(548), to: day(2) };
  type Behind = { items: { pieces: number; amount: number }[]; count: number };
  let compared = 0;
  for (const by of ['category', 'brand', 'condition', 'price'])
    for (const [view, id, amount] of [
      ['best', 'best', 'net'],
      ['speed', 'groups', null],
    ] as const) {
      const query = new URLSearchParams({ ...period, view, by });
      const { tables } = (await call<View>('GET', `/insights?${query}`)).body;
      const found = tables.find((one) => one.id === id);
      for (const { cells, behind } of found?.rows ?? []) {
        const asked = new URLSearchParams({ ...behind, limit: '500' });
        const { body } = await call<Behind>('GET', `/insights/items?${asked}`);
        if (body.count > 500) continue;
        const at = (name: string) => cells[found?.columns.findIndex((one) => one.id === name) ?? 0];
        expect([by, cells[0], body.items.reduce((sum, one) => sum + one.pieces, 0)]).toEqual([
          by,
          cells[0],
          at('pieces'),
        ]);
        if (amount) expect(body.items.reduce((sum, one) => sum + one.amount, 0)).toBe(at(amount));
        compared++;
      }
    }
  expect(compared).toBeGreaterThan(20);
}, 120_000);

test('what a price cut brought is compared within the same age; with too few nothing is said', async () => {
  const brand = `Lund ${randomUUID().slice(0, 6)}`;
  await piecesOf(brand, [...times(12, { soldOn: 50, cutOn: 40 }), ...times(12, { soldOn: 45, cutOn: null })]);
  const where = JSON.stringify({ field: 'brand', op: 'is', value: brand });
  const query = { view: 'effects', from: day(110), to: day(0), where };
  const cut = (await table('effects', query)).get('cutDay');
  // From the 30th day on: 12 × 10 and 12 × 15.5 days before it, 12 × 10.5 after it; twelve sold on either side.
  const expected = effectOf([{ soldBefore: 12, daysBefore: 306, soldAfter: 12, daysAfter: 126 }]);
  expect(cut).toMatchObject({
    before: 12,
    after: 12,
    times: Math.round((expected?.ratio ?? 0) * 100),
    least: Math.round((expected?.least ?? 0) * 100),
    most: Math.round((expected?.most ?? 0) * 100),
    verdict: 'Sold faster afterwards',
  });
  const renewed = (await table('effects', query)).get('renewedDay');
  expect(renewed).toMatchObject({ times: null, verdict: 'Too few to say' });
}, 180_000);
