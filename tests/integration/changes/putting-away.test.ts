import { publishItems, readyFilm, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, marketListings, until } from '../../support/stack';

type Edited = { runId: number; items: number; refused: number; title?: string };
type Counted = { drafts: number; ready: number };

let oakhand: number;
let selasar: number;
beforeAll(async () => {
  [oakhand, selasar] = (await Promise.all(['Oakhand', 'Selasar'].map(accountOf))) as [number, number]; // two were asked for
});

const edit = async (ids: number[], steps: unknown[], send = false) =>
  (await call<Edited>('POST', '/edits', { selection: { kind: 'items', ids }, steps, send })).body;
const standing = (to: string) => [{ field: 'standing', do: { verb: 'set', value: to } }];
const target = (accounts: number[], here: boolean) => [
  { field: 'target', where: { on: 'accounts', accounts }, do: { verb: 'set', value: here } },
];
const found = async (sku: string, more: object[] = []) => {
  const where = { all: [{ field: 'sku', op: 'is', value: sku }, ...more] };
  const query = new URLSearchParams({ where: JSON.stringify(where) });
  return (await call<{ items: { id: number }[] }>('GET', `/items?${query}`)).body.items.map((one) => one.id);
};
const isOffered = async (market: string, sku: string) =>
  (await marketListings(market)).some((one) => one.summary.reference.startsWith(sku) && one.state === 'live');
const stages = async () => (await call<Counted>('GET', '/stages')).body;
const here = async (id: number, account: number) =>
  (await sheet(id)).columns.some((one) => one.accountId === account && one.state !== 'none');

test('what is archived ends where it is live, is found only where one asks for it, and comes back as it was', async () => {
  const film = await readyFilm(6);
  await publishItems([film.id], [oakhand]);
  await until(
    () => stateOn(film.id, oakhand),
    (state) => state === 'live',
  );
  // Ends by itself, also where nothing is to be sent.
  const { runId } = await edit([film.id], standing('archived'));
  expect(await found(film.sku)).toEqual([]);
  const asked = [{ field: 'standing', op: 'is', value: 'archived' }];
  expect(await found(film.sku, asked)).toEqual([film.id]);
  await until(
    () => stateOn(film.id, oakhand),
    (state) => state === 'ended',
  );
  expect(await isOffered('oakhand', film.sku)).toBe(false);
  const { item } = await sheet(film.id);
  expect(item).toMatchObject({ standing: 'archived', quantity: 6, sku: film.sku });
  // What is put away cannot be offered, whichever way it is chosen.
  await publishItems([film.id], [oakhand]).catch(() => undefined);
  expect(await isOffered('oakhand', film.sku)).toBe(false);
  // More of it is still not for sale.
  await edit([film.id], [{ field: 'quantity', do: { verb: 'add', by: 2 } }], true);
  expect(await stateOn(film.id, oakhand)).not.toBe('live');

  await call('POST', `/runs/${runId}/undo`, {});
  expect(await found(film.sku)).toEqual([film.id]);
  await publishItems([film.id], [oakhand]);
  await until(
    () => stateOn(film.id, oakhand),
    (state) => state === 'live',
  );
});

test('what is deleted keeps its number and its sales, and can be put back', async () => {
  const film = await readyItem({}, 2);
  await edit([film.id], standing('deleted'));
  expect(await found(film.sku)).toEqual([]);
  const again = await call<{ id: number }>('POST', '/items', { fields: { sku: film.sku, title: 'The same number' } });
  expect(again.status).toBeGreaterThanOrEqual(400);
  expect(await edit([film.id], standing('active'))).toMatchObject({ items: 1 });
  expect(await found(film.sku)).toEqual([film.id]);
  // The same once more says that nothing changes.
  expect(await edit([film.id], standing('active'))).toMatchObject({ title: 'Nothing would change' });
});

test('drafts of what is put away are counted nowhere', async () => {
  const film = await readyFilm(1);
  await edit([film.id], target([oakhand], true));
  const before = await stages();
  await edit([film.id], standing('archived'));
  const after = await stages();
  expect(before.drafts + before.ready - after.drafts - after.ready).toBeGreaterThan(0);
});

test('for which accounts items are meant is a step like any other, and is taken back', async () => {
  const film = await readyFilm(1);
  await edit([film.id], target([oakhand, selasar], false));
  expect([await here(film.id, oakhand), await here(film.id, selasar)]).toEqual([false, false]);
  const { runId, items } = await edit([film.id], target([oakhand, selasar], true));
  expect(items).toBe(1);
  expect([await here(film.id, oakhand), await here(film.id, selasar)]).toEqual([true, true]);
  expect(await edit([film.id], target([oakhand], true))).toMatchObject({ title: 'Nothing would change' });
  expect((await call<{ items: number }>('POST', `/runs/${runId}/undo`, {})).body.items).toBe(1);
  expect([await here(film.id, oakhand), await here(film.id, selasar)]).toEqual([false, false]);
});

test('an item is not left out where it can be bought; the others are', async () => {
  const [live, draft] = [await readyFilm(2), await readyFilm(2)];
  await publishItems([live.id], [oakhand]);
  await until(
    () => stateOn(live.id, oakhand),
    (state) => state === 'live',
  );
  await edit([draft.id], target([oakhand], true));
  const done = await edit([live.id, draft.id], target([oakhand], false));
  expect(done).toMatchObject({ items: 1, refused: 1 });
  expect(await stateOn(live.id, oakhand)).toBe('live');
  expect(await here(draft.id, oakhand)).toBe(false);
});
