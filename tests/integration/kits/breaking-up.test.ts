import { closeDatabase } from '../../../src/db/client';
import { sheet } from '../../support/items';
import { kitOf, lotAccount, lotsIn, newKit, put, setLots } from '../../support/kits';
import { call } from '../../support/stack';

afterAll(closeDatabase);

type Stocked = { made: number; left: number };
const intoStock = async (id: number, body: unknown = {}) => call<Stocked>('POST', `/kits/${id}/stock`, body);
/** An outfit of the catalogue, with a set within it. */
const entry = 'LB4032';

test('three outfits of the catalogue become lots: equal entries joined, spares with them, sets within opened', async () => {
  const account = await lotAccount();
  const id = await newKit({ account, totalCost: 12_000 });
  const without = await put(id, { entry }, { times: 3, with: [] });
  expect(without.body).toMatchObject({ added: 0, joined: expect.any(Array) });
  const lots = await lotsIn(id);
  expect(lots.length).toBe(without.body.made);
  expect(lots.length).toBeGreaterThan(45);
  expect(lots.every((lot) => lot.quantity % 3 === 0)).toBe(true);
  // The three trays of the set within are with the trays that lie in the box by themselves.
  const tray = lots.find((lot) => lot.name.endsWith('Tray 18 × 24') && lot.finish === 'plain');
  expect(tray?.from.map((one) => one.within.length)).toEqual([1, 2]);
  expect(lots.some((lot) => lot.name.endsWith('Tray set'))).toBe(false);

  // Two more with their spares join what is there.
  const more = await put(id, { entry }, { times: 2 });
  expect(more.body.made).toBe(0);
  expect(more.body.added).toBe(lots.length);
  const now = await lotsIn(id);
  const pieces = now.reduce((sum, lot) => sum + lot.quantity, 0);
  expect((await kitOf(id)).totals).toMatchObject({ lots: lots.length, pieces, unpriced: lots.length, ready: 0 });
  expect(pieces).toBe(without.body.pieces + more.body.pieces);
  const clip = now.find((lot) => lot.name.endsWith('Film clip') && lot.from.some((one) => one.kind === 'spare'));
  expect(clip?.from.map((one) => one.kind)).toEqual(['part', 'part', 'spare']);

  // One of the joined taken apart again is a lot of its own; the pieces stay the same.
  const apart = await call<{ lot: number }>('POST', `/kits/${id}/apart`, { lot: clip?.id, at: 2 });
  const after = await lotsIn(id);
  expect(after.length).toBe(now.length + 1);
  expect(after.find((lot) => lot.id === apart.body.lot)).toMatchObject({
    quantity: clip?.from[2]?.quantity,
    from: [{ kind: 'spare' }],
  });
  expect(after.reduce((sum, lot) => sum + lot.quantity, 0)).toBe(pieces);
});

test('ready lots become items with price, comment, place, cost and entry; the others stay; nothing is made twice', async () => {
  const account = await lotAccount();
  const id = await newKit({ account, totalCost: 10_000, supplier: 'Estate Aldern' });
  await put(id, { entry });
  await setLots(id, (_lot, index) =>
    index < 4
      ? { price: 400 + index, place: `A${index + 1}`, comment: 'Washed' }
      : index === 4
        ? { state: 'later' }
        : null,
  );
  const before = await kitOf(id);
  expect(before.totals).toMatchObject({ ready: 4, later: 1, done: 0 });
  const both = await Promise.all([intoStock(id), intoStock(id)]);
  expect(both.map((one) => one.body.made).sort()).toEqual([0, 4]);
  expect((await intoStock(id)).body).toEqual({ made: 0, left: 0 });
  const lots = await lotsIn(id);
  const done = lots.filter((lot) => lot.state === 'done');
  expect(done).toHaveLength(4);
  const [first] = done;
  const seen = await sheet(first?.item?.id ?? 0);
  expect(seen.item).toMatchObject({
    title: first?.name,
    price: 400,
    location: 'A1',
    conditionNote: 'Washed',
    condition: 'good',
    supplier: 'Estate Aldern',
    quantity: first?.quantity,
    weightGrams: first?.grams,
  });
  expect(seen.item.cost).toBeGreaterThan(0);
  const { body: whole } = await call<{ columns: { accountId: number; fields: { field: string; value: unknown }[] }[] }>(
    'GET',
    `/items/${first?.item?.id}`,
  );
  const there = whole.columns.find((column) => column.accountId === account);
  expect(there?.fields.find((field) => field.field === 'product')).toMatchObject({ value: first?.entry });
  expect(there?.fields.find((field) => field.field === 'extra.finish')?.value).toBe(first?.finish);

  // What is in stock is changed there.
  const refused = await call<{ refused: { why: string }[] }>('PATCH', `/kits/${id}/lots`, {
    lots: [{ id: first?.id, baseVersion: first?.version, set: { price: 1 } }],
  });
  expect(refused.body.refused[0]?.why).toContain('in stock already');

  // Taken back as a run, the items are gone and the lots are ready again.
  await call('POST', `/runs/${before.runId}/undo`, {});
  expect((await kitOf(id)).totals).toMatchObject({ ready: 4, done: 0 });
  expect((await intoStock(id)).body).toEqual({ made: 4, left: 0 });
});

test('two people at the same lots: who comes later is told, and nothing is overwritten', async () => {
  const id = await newKit();
  await put(id, { text: '2 x tray\n4 x clip' });
  const [lot] = await lotsIn(id);
  const write = (price: number) =>
    call<{ changed: unknown[]; refused: { why: string }[] }>('PATCH', `/kits/${id}/lots`, {
      lots: [{ id: lot?.id, baseVersion: lot?.version, set: { price } }],
    });
  const both = (await Promise.all([write(500), write(600)])).map((one) => one.body);
  expect(both.map((one) => one.changed.length).sort()).toEqual([0, 1]);
  expect(both.flatMap((one) => one.refused)[0]?.why).toContain('meanwhile');
});

test('what cannot be meant is said at its place: vague numbers, things that are no set, a closed list', async () => {
  const id = await newKit({ account: await lotAccount() });
  expect((await put(id, { text: '2 x tray\nabout ten x bottle' })).body).toMatchObject({
    title: expect.stringContaining('Line 2, “about ten x bottle”'),
    field: 'text',
  });
  expect(await lotsIn(id)).toEqual([]);
  expect((await put(id, { entry: 'LB9001' })).body.title).toContain('it is no set');
  expect((await put(id, { text: 'leaflet (paper)' })).body.title).toBe('Nothing of it counts');
  expect((await put(id, { text: '100,000 x pin' }, { times: 11 })).body.field).toBe('times');
  expect((await put(await newKit(), { entry: 'LB4031' })).body.title).toContain('no catalogue');
  const { version } = await kitOf(id);
  await call('PATCH', `/kits/${id}`, { baseVersion: version, state: 'closed' });
  expect((await put(id, { text: '2 x tray' })).body.title).toContain('is closed');
  expect((await intoStock(id)).status).toBe(409);
});
