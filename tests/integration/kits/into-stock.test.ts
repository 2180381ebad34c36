import { closeDatabase } from '../../../src/db/client';
import { sheet } from '../../support/items';
import { type Begun, kitOf, lotAccount, lotsIn, newKit, put, setLots, worked } from '../../support/kits';
import { call } from '../../support/stack';

afterAll(closeDatabase);

/** An outfit of the catalogue. */
const entry = 'LB4032';
/** Twelve different things that nobody else has. */
const list = (name: string) => Array.from({ length: 12 }, (_, at) => `${at + 2} x ${name} ${at}`).join('\n');
const unlike = () => `part ${Math.random().toString(36).slice(2, 9)}`;
type Compared = {
  adds: { lot: number; item: { id: number } | null; becomes: { quantity: number; price: number; place: string } }[];
  changes: { lot: number; edited: string[] }[];
  stay: number;
};
const compare = async (id: number, body: Record<string, unknown> = {}) =>
  (await call<Compared>('POST', `/kits/${id}/compared`, body)).body;
const undo = (run: number) => call('POST', `/runs/${run}/undo`, {});

test('ready lots become items with price, comment, place, cost and entry; the others stay; nothing is made twice', async () => {
  const account = await lotAccount();
  const id = await newKit({ account, totalCost: 10_000, supplier: 'Estate Aldern' });
  await put(id, { entry }, { condition: 'mint' });
  await setLots(id, (_lot, index) =>
    index < 4
      ? { price: 40_000 + index, place: `A${index + 1}`, comment: 'Washed' }
      : index === 4
        ? { state: 'later' }
        : null,
  );
  expect((await kitOf(id)).totals).toMatchObject({ ready: 4, later: 1, done: 0 });
  const before = await compare(id);
  expect(before.stay).toBeGreaterThan(40);
  const both = await Promise.allSettled([worked(id, 'stock'), worked(id, 'stock')]);
  const done = both.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  expect(done).toHaveLength(1);
  expect((done[0]?.made ?? 0) + (done[0]?.added ?? 0)).toBe(4);
  expect((await call<Begun>('POST', `/kits/${id}/stock`, {})).body.title).toContain('None of these lots is ready');
  const lots = await lotsIn(id);
  expect(lots.filter((one) => one.state === 'done')).toHaveLength(4);
  const [lot] = lots.filter((one) => one.state === 'done');
  const seen = await sheet(lot?.item?.id ?? 0);
  expect(seen.item).toMatchObject({ title: lot?.name, condition: 'mint', supplier: 'Estate Aldern' });
  expect(seen.item.cost).toBeGreaterThan(0);
  const { body: whole } = await call<{ columns: { accountId: number; fields: { field: string; value: unknown }[] }[] }>(
    'GET',
    `/items/${lot?.item?.id}`,
  );
  const there = whole.columns.find((column) => column.accountId === account);
  expect(there?.fields.find((field) => field.field === 'product')).toMatchObject({ value: lot?.entry });
  expect(there?.fields.find((field) => field.field === 'extra.finish')?.value).toBe(lot?.finish);
});

test('nine to fourteen: shown before, added once, price and place as chosen, taken back as a run', async () => {
  const name = unlike();
  const first = await newKit();
  await put(first, { text: list(name) });
  await setLots(first, (lot) => ({ price: 1_000, place: `A${lot.quantity}` }));
  const begun = await worked(first, 'stock');
  expect(begun).toMatchObject({ made: 12, added: 0, left: [] });

  const id = await newKit({ totalCost: 9_000 });
  await put(id, { text: `9 x ${name} 2\n3 x ${name} 3\n5 x ${name} new` });
  await setLots(id, (_lot, at) => ({ price: at === 2 ? 700 : 1_500, place: 'B9' }));
  const [nine, three, fresh] = await lotsIn(id);
  const shown = await compare(id, { joining: { price: 'weighted', place: 'kept' } });
  expect(shown.adds.map((one) => [one.lot, one.item !== null, one.becomes])).toEqual([
    [nine?.id, true, { quantity: 13, price: 1_346, place: 'A4' }],
    [three?.id, true, { quantity: 8, price: 1_188, place: 'A5' }],
    [fresh?.id, false, { quantity: 5, price: 700, place: 'B9' }],
  ]);
  const seen = shown.adds.map((one) => ({ lot: one.lot, item: one.item?.id ?? null }));
  const choices = [{ lot: three?.id, price: 'kept', place: 'replaced' }];
  const body = { joining: { price: 'weighted', place: 'kept' }, choices, seen };
  const came = await worked(id, 'stock', body);
  expect(came).toMatchObject({ made: 1, added: 2, left: [] });
  const itemOf = async (lot?: number) => {
    const found = (await lotsIn(id)).find((one) => one.id === lot);
    return (await sheet(found?.item?.id ?? 0)).item;
  };
  expect(await itemOf(nine?.id)).toMatchObject({ quantity: 13, price: 1_346, location: 'A4' });
  expect(await itemOf(three?.id)).toMatchObject({ quantity: 8, price: 1_000, location: 'B9' });
  const item = seen[0]?.item ?? 0;
  await undo(came.runId);
  expect((await kitOf(id)).totals).toMatchObject({ done: 0, ready: 3 });
  expect((await sheet(item)).item).toMatchObject({ quantity: 4, price: 1_000, location: 'A4' });
  expect(await worked(id, 'stock', body)).toMatchObject({ made: 1, added: 2 });
  expect((await sheet(item)).item.quantity).toBe(13);
});

test('what is another than was shown stays, and says so', async () => {
  const name = unlike();
  const id = await newKit();
  await put(id, { text: `9 x ${name}` });
  await setLots(id, () => ({ price: 100 }));
  const [lot] = await lotsIn(id);
  const other = await newKit();
  await put(other, { text: `2 x ${name}` });
  await setLots(other, () => ({ price: 100 }));
  await worked(other, 'stock');
  const came = await worked(id, 'stock', { seen: [{ lot: lot?.id, item: null }] });
  expect(came).toMatchObject({ made: 0, added: 0, left: [{ why: expect.stringContaining('than was shown') }] });
});

test('adding refuses what is there, changing refuses what is not; each has a way over and is taken back as a run', async () => {
  const id = await newKit();
  const name = unlike();
  await put(id, { text: list(name) });
  await setLots(id, (_lot, at) => (at < 6 ? { price: 1_500, place: 'A1' } : { price: 800, state: 'later' }));
  await worked(id, 'stock');
  const lots = await lotsIn(id);
  const [there, other] = lots;
  const [later] = lots.filter((lot) => lot.state === 'later');
  const refusal = async (what: 'stock' | 'there', body: Record<string, unknown>) =>
    (await call<Begun>('POST', `/kits/${id}/${what}`, body)).body;
  expect((await refusal('there', {})).title).toContain('Nothing was changed here');
  expect((await refusal('there', { lots: [later?.id] })).title).toContain('not in stock yet');
  expect((await refusal('stock', { lots: [there?.id, other?.id] })).title).toContain(
    '2 of these lots are in stock already',
  );

  // What is in stock is changed in the table, and there only when it is said.
  const refused = await setLots(id, (lot) => (lot.id === there?.id ? { quantity: 1 } : null));
  expect(refused.refused[0]?.why).toContain('in stock already');
  await setLots(id, (lot) => (lot.id === there?.id ? { price: 1_400, place: 'C3' } : null));
  const item = there?.item?.id ?? 0;
  expect((await sheet(item)).item).toMatchObject({ price: 1_500, location: 'A1', quantity: there?.quantity });
  expect((await compare(id)).changes).toEqual([
    expect.objectContaining({ lot: there?.id, edited: ['price', 'place'] }),
  ]);
  const changed = await worked(id, 'there');
  expect(changed).toMatchObject({ changed: 1, left: [] });
  expect((await sheet(item)).item).toMatchObject({ price: 1_400, location: 'C3', quantity: there?.quantity });
  await undo(changed.runId);
  expect((await sheet(item)).item).toMatchObject({ price: 1_500, location: 'A1', quantity: there?.quantity });
  const again = (await lotsIn(id)).find((lot) => lot.id === there?.id);
  expect(again).toMatchObject({ state: 'done', price: 1_500, edited: [] });

  // The way over: the pieces once more.
  const twice = await worked(id, 'stock', { lots: [there?.id], anyway: true });
  expect(twice).toMatchObject({ made: 0, added: 1 });
  expect((await sheet(item)).item.quantity).toBe(2 * (there?.quantity ?? 0));
  // Taken back, what was there before is still there, and is not ready to go in again.
  await undo(twice.runId);
  expect((await sheet(item)).item.quantity).toBe(there?.quantity);
  expect((await lotsIn(id)).find((lot) => lot.id === there?.id)?.state).toBe('done');
});

test('a list of what is there changes it and adds nothing; what is not there stays', async () => {
  const id = await newKit();
  const name = unlike();
  await put(id, { text: list(name) });
  await setLots(id, () => ({ price: 1_000 }));
  await worked(id, 'stock');
  const news = await newKit();
  const file = `name,pieces,price\n${name} 1,7,12.50\n${name} 99,1,2.00`;
  await put(news, { file }, { meant: 'change' });
  const lots = await lotsIn(news);
  const added = await call<Begun>('POST', `/kits/${news}/stock`, { lots: lots.map((lot) => lot.id) });
  expect(added.body.title).toContain('meant to change');
  expect((await call<Begun>('POST', `/kits/${news}/stock`, {})).body.title).toContain('None of these lots is ready');
  const came = await worked(news, 'there', { units: true });
  expect(came).toMatchObject({ changed: 1, left: [{ why: 'It is not in stock: add it' }] });
  const item = (await lotsIn(news))[0]?.item?.id ?? 0;
  expect((await sheet(item)).item).toMatchObject({ price: 1_250, quantity: 7 });
});

test('tiers are checked against each other and the price, and go with the lot', async () => {
  const account = await lotAccount();
  const id = await newKit({ account });
  await put(id, { text: `4 x ${unlike()}` });
  const bad = await setLots(id, () => ({ price: 500, tiers: ['10: 5.00'] }));
  expect(bad.refused[0]?.why).toContain('costs less a piece');
  await setLots(id, () => ({ price: 500, tiers: ['10: 4.50', '50: 4.00'] }));
  await worked(id, 'stock');
  const [lot] = await lotsIn(id);
  const { body } = await call<{ columns: { accountId: number; fields: { field: string; value: unknown }[] }[] }>(
    'GET',
    `/items/${lot?.item?.id}`,
  );
  const there = body.columns.find((column) => column.accountId === account);
  expect(there?.fields.find((field) => field.field === 'extra.tiers')?.value).toEqual(['10: 4.50', '50: 4.00']);
});

test('lots that are the same are added one to the other, also when nothing was there before: no piece is lost', async () => {
  const name = unlike();
  const id = await newKit({ totalCost: 700 });
  await put(id, { text: `5 x ${name}` });
  await setLots(id, () => ({ price: 1_000 }));
  const [whole] = await lotsIn(id);
  await call('POST', `/kits/${id}/apart`, { how: 'pieces', lot: whole?.id, pieces: 2, condition: 'good' });
  await setLots(id, () => ({ price: 1_000 }));
  const seen = (await compare(id)).adds.map((one) => ({ lot: one.lot, item: one.item?.id ?? null }));
  expect(seen.map((one) => one.item)).toEqual([null, null]);
  expect(await worked(id, 'stock', { seen })).toMatchObject({ made: 1, added: 1, left: [] });
  const item = (await lotsIn(id))[0]?.item?.id ?? 0;
  expect((await sheet(item)).item).toMatchObject({ quantity: 5, cost: 140 });
  // Two in one go, to what is there.
  const more = await newKit();
  await put(more, { text: `4 x ${name}` });
  await put(more, { text: `6 x ${name} ` }, { meant: 'change' });
  await setLots(more, (lot) => (lot.meant === 'change' ? { meant: 'add', price: 1_000 } : { price: 1_000 }));
  expect(await worked(more, 'stock')).toMatchObject({ made: 0, added: 2 });
  expect((await sheet(item)).item.quantity).toBe(15);
});
