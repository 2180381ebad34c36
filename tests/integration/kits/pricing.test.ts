import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { entrySales } from '../../../src/db/schema';
import { kitOf, lotAccount, lotsIn, newKit, put, setLots, worked } from '../../support/kits';
import { call } from '../../support/stack';

afterAll(closeDatabase);

type Priced = { priced: number; unpriced: number; kept: number };
const price = (id: number, how: Record<string, unknown> = {}, more: Record<string, unknown> = {}) =>
  worked<Priced>(id, 'pricing', { how, ...more });

test('lots are priced from single sales, each says how; then all go down, and kept ones stay', async () => {
  const id = await newKit({ account: await lotAccount() });
  await put(id, { entry: 'LB4031' });
  const before = await lotsIn(id);
  expect((await kitOf(id)).totals.unpriced).toBe(before.length);
  const first = await price(id);
  expect(first.priced + first.unpriced).toBe(before.length);
  expect(first.priced).toBeGreaterThan(before.length * 0.9);
  const lots = await lotsIn(id);
  const [one, two] = lots.filter((lot) => lot.basis?.step === 'sales' || lot.basis?.step === 'longer');
  if (!one?.basis || !two) throw new Error('no lot was priced from sales');

  // What the marketplace told, computed plainly: where nothing lies too far out, the middle of single pieces.
  const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
  let compared = 0;
  const plain = lots.filter(({ basis: by }) => by?.step === 'sales' && by.outliers.length === 0);
  for (const lot of plain) {
    const [row] = await database().select().from(entrySales).where(eq(entrySales.entry, lot.entry));
    const prices = (row?.told.sales ?? [])
      // Their clock may be ahead of ours, with sales of days that are to come.
      .filter(({ condition, finish }) => condition === 'used' && finish === lot.finish)
      .filter(({ date }) => date >= day(180) && date <= day(0))
      .map((sale) => sale.price)
      .sort((a, b) => a - b);
    expect(prices.length).toBe(lot.basis?.count);
    const half = prices.length / 2;
    const middle = ((prices[Math.ceil(half) - 1] ?? 0) + (prices[Math.floor(half)] ?? 0)) / 2;
    expect(lot.price).toBe(Math.round(middle));
    compared++;
  }
  expect(compared).toBeGreaterThan(3);
  expect(one.price).toBe(one.basis.found);
  expect(one.basis).toMatchObject({ measure: 'median', days: expect.any(Number), isFloor: false });
  expect(one.basis.count).toBeGreaterThanOrEqual(3);
  expect(lots.some((lot) => lot.basis && lot.basis.step !== 'sales')).toBe(true);

  await setLots(id, (lot) => (lot.id === one.id ? { price: 4_321 } : null));
  const lower = await price(id, { basisPoints: -500, rounding: 'none' });
  expect(lower.kept).toBe(1);
  const after = await lotsIn(id);
  expect(after.find((lot) => lot.id === one.id)).toMatchObject({ price: 4_321, isKept: true, basis: null });
  const now = after.find((lot) => lot.id === two.id);
  expect(now?.basis?.found).toBe(two.price);
  expect(Math.abs((now?.price ?? 0) - (two.price ?? 0) * 0.95)).toBeLessThanOrEqual(0.5);
  expect((await kitOf(id)).pricing).toMatchObject({ basisPoints: -500 });

  // Not under what the fees ask for: 0.35 a sale and 6.4 % of it.
  const floor = await price(id, { leastNet: 100, basisPoints: -9_000 });
  expect(floor.priced).toBe(first.priced - 1);
  const raised = (await lotsIn(id)).filter((lot) => lot.basis?.isFloor);
  expect(raised.length).toBeGreaterThan(0);
  for (const lot of raised) expect(lot.price).toBe(144);
});

test('what was heard holds for a day; nothing is asked twice, unless one wants it', async () => {
  const id = await newKit({ account: await lotAccount() });
  await put(id, { entry: 'LB4035' });
  await price(id);
  const lots = await lotsIn(id);
  const heard = async (entry?: string) =>
    (
      await database()
        .select({ at: entrySales.readAt })
        .from(entrySales)
        .where(eq(entrySales.entry, entry ?? ''))
    )[0]?.at;
  const first = await heard(lots[0]?.entry);
  expect(first).toBeInstanceOf(Date);
  // Only some of them, with another measure.
  const some = lots.slice(0, 3).map((lot) => lot.id);
  await price(id, { measure: 'least-offer' }, { lots: some });
  const after = await lotsIn(id);
  expect(after.filter((lot) => lot.basis?.step === 'offers').length).toBeGreaterThanOrEqual(1);
  expect(after.slice(3).map((lot) => lot.price)).toEqual(lots.slice(3).map((lot) => lot.price));
  expect(await heard(lots[0]?.entry)).toEqual(first);
  expect((await price(id, {}, { lots: some, anew: true })).priced).toBe(3);
  expect((await heard(lots[0]?.entry))?.getTime()).toBeGreaterThan(first?.getTime() ?? 0);
  // Of the others nobody was asked again.
  const other = lots.find((lot) => !lots.slice(0, 3).some((one) => one.entry === lot.entry));
  expect((await heard(other?.entry))?.getTime()).toBeLessThan((await heard(lots[0]?.entry))?.getTime() ?? 0);
});

test('what cannot be priced is said: no catalogue, only kept ones, nothing meant', async () => {
  const none = await newKit();
  await put(none, { text: '2 x tray' });
  const refused = await call<{ title: string }>('POST', `/kits/${none}/pricing`, { how: {} });
  expect(refused.body.title).toContain('belong to no catalogue');
  const id = await newKit({ account: await lotAccount() });
  await put(id, { text: '2 x tray' });
  expect((await call<{ title: string }>('POST', `/kits/${id}/pricing`, { how: {} })).body.title).toContain(
    'None of these lots can be priced',
  );
  expect((await call('POST', `/kits/${id}/pricing`, { how: { days: 31 } })).status).toBe(422);
});
