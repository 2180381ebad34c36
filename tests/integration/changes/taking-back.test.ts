import { readyItem, sheet, strapOfTwo } from '../../support/items';
import { accountOf, call } from '../../support/stack';

type Edited = { runId: number; items: number };
type Since = { change: number; itemId: number; field: string; before: string; made: string; now: string };
type Undone = { runId: number; items: number; changedSince: Since[]; title?: string };
type RunChange = { id: number; field: string; before: string; made: string; now: string; state: string };
type RunChanges = {
  run: { title: string; undoneBy: number | null; undoOf: number | null };
  items: { id: number; changes: RunChange[] }[];
  next: number | null;
};

const edit = async (ids: number[], steps: unknown[]) =>
  (await call<Edited>('POST', '/edits', { selection: { kind: 'items', ids }, steps, send: false })).body;
const undo = (run: number, body = {}) => call<Undone>('POST', `/runs/${run}/undo`, body);
const changesOf = async (run: number, query = '') =>
  (await call<RunChanges>('GET', `/runs/${run}/changes${query}`)).body;
const priceOf = async (id: number) => (await sheet(id)).item.price;
const typed = async (id: number, patch: object) =>
  call('PATCH', `/items/${id}`, { baseVersion: (await sheet(id)).item.version, patch });
const three = async (price: number) =>
  (await Promise.all([readyItem({ price }), readyItem({ price }), readyItem({ price })]))
    .map((one) => one.id)
    .sort((a, b) => a - b);
const dearer = [{ field: 'price', do: { verb: 'amount', amount: 500 } }];

test('what was changed since is shown with three values, stays, and is taken back all the same where that is chosen', async () => {
  const ids = await three(10_000);
  const { runId } = await edit(ids, [...dearer, { field: 'keywords', do: { verb: 'add-to', entries: ['spring'] } }]);
  await typed(ids[1] ?? 0, { price: 12_345 });
  const seen = await changesOf(runId);
  expect(seen.items.map((one) => one.id)).toEqual(ids);
  expect(seen.items[1]?.changes.find((one) => one.field === 'Price')).toMatchObject({
    before: '100.00',
    made: '105.00',
    now: '123.45',
    state: 'changed-since',
  });
  const { body } = await undo(runId);
  expect(body.changedSince).toEqual([
    expect.objectContaining({ itemId: ids[1], field: 'Price', before: '100.00', made: '105.00', now: '123.45' }),
  ]);
  expect(await Promise.all(ids.map(priceOf))).toEqual([10_000, 12_345, 10_000]);
  // Not as a whole again; that one value all the same.
  expect((await undo(runId)).status).toBe(409);
  const forced = await undo(runId, { overwrite: body.changedSince.map((one) => one.change) });
  expect(forced.body).toMatchObject({ items: 1, changedSince: [] });
  expect(await Promise.all(ids.map(priceOf))).toEqual([10_000, 10_000, 10_000]);
  expect((await changesOf(runId)).items.flatMap((one) => one.changes.map(({ state }) => state))).toEqual(
    Array(6).fill('taken-back'),
  );
});

test('chosen items are taken back, the others later; units that are taken back once are not taken back twice', async () => {
  const ids = (await Promise.all([readyItem({}, 5), readyItem({}, 5), readyItem(strapOfTwo)]))
    .map((one) => one.id)
    .sort((a, b) => a - b);
  const stock = async () => Promise.all(ids.map(async (id) => (await sheet(id)).item.quantity));
  const before = await stock();
  const { runId } = await edit(ids, [
    { field: 'quantity', do: { verb: 'add', by: 3 } },
    { field: 'quantity', where: { on: 'combinations', of: {} }, do: { verb: 'add', by: 2 } },
  ]);
  // The first step is refused for what is counted by its combinations: those that were changed are single pieces.
  const done = await stock();
  const some = ids.filter((_, at) => done[at] !== before[at]);
  expect(some.length).toBeGreaterThanOrEqual(2);
  const [first = 0] = some;
  expect((await undo(runId, { items: [first] })).body.items).toBe(1);
  const half = await stock();
  expect(half[ids.indexOf(first)]).toBe(before[ids.indexOf(first)]);
  expect(half.filter((units, at) => units !== before[at])).toHaveLength(some.length - 1);
  // The rest of it, as a whole: what is back already stays.
  expect((await undo(runId)).body.items).toBe(some.length - 1);
  expect(await stock()).toEqual(before);
});

test('taking back can be taken back, as often as one likes', async () => {
  const ids = await three(20_000);
  const { runId } = await edit(ids, dearer);
  const back = (await undo(runId)).body;
  expect(await Promise.all(ids.map(priceOf))).toEqual([20_000, 20_000, 20_000]);
  const again = (await undo(back.runId)).body;
  expect(again).toMatchObject({ items: 3, changedSince: [] });
  expect(await Promise.all(ids.map(priceOf))).toEqual([20_500, 20_500, 20_500]);
  expect((await changesOf(again.runId)).run).toMatchObject({
    title: expect.stringMatching(/^Done again: /),
    undoOf: back.runId,
  });
  // The change itself holds again, and can be taken back once more.
  expect((await changesOf(runId)).run.undoneBy).toBeNull();
  expect((await undo(runId)).body).toMatchObject({ items: 3, changedSince: [] });
  expect(await Promise.all(ids.map(priceOf))).toEqual([20_000, 20_000, 20_000]);
});

test('a long run is shown page by page', async () => {
  const ids = await three(30_000);
  const { runId } = await edit(ids, dearer);
  const first = await changesOf(runId, '?limit=2');
  expect(first.items.map((one) => one.id)).toEqual(ids.slice(0, 2));
  const rest = await changesOf(runId, `?limit=2&after=${first.next}`);
  expect(rest.items.map((one) => one.id)).toEqual(ids.slice(2));
  expect(rest.next).toBeNull();
  expect((await call('GET', '/runs/999999999/changes')).status).toBe(404);
});

test('two who take the same back at the same moment move its units once', async () => {
  const items = await Promise.all([readyItem({}, 5), readyItem({}, 5), readyItem({}, 5)]);
  const ids = items.map((one) => one.id).sort((a, b) => a - b);
  const { runId } = await edit(ids, [{ field: 'quantity', do: { verb: 'add', by: 4 } }]);
  const both = await Promise.all([
    undo(runId, { items: ids }),
    undo(runId, { items: ids }),
    undo(runId, { items: ids }),
  ]);
  expect(both.map((one) => one.body.items).sort()).toEqual([0, 0, 3]);
  expect(await Promise.all(ids.map(async (id) => (await sheet(id)).item.quantity))).toEqual([5, 5, 5]);
});

test('what was written for an account of another currency says which', async () => {
  const selasar = await accountOf('Selasar');
  const { id } = await readyItem();
  await call('PUT', `/items/${id}/listings/${selasar}/target`, { here: true });
  const { runId } = await edit(
    [id],
    [{ field: 'price', where: { on: 'accounts', accounts: [selasar] }, do: { verb: 'set', value: 12_345 } }],
  );
  const [change] = (await changesOf(runId)).items[0]?.changes ?? [];
  expect(change).toMatchObject({ field: 'Price', made: '123.45 SGD' });
});
