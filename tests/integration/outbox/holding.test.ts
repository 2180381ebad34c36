import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, marketListings, until } from '../../support/stack';

type Job = { id: number; state: string; runId: number; message: string | null };
const jobsOf = async (item: number) => (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item}`)).body.jobs;
type Run = { id: number; held: number; waiting: number; done: number; stopped: boolean; title: string };
const runOf = async (id: number) => (await call<{ runs: Run[] }>('GET', `/runs?run=${id}`)).body.runs[0];
type Lane = { accountId: number; waiting: number; held: number; paused: boolean };
const laneOf = async (account: number) =>
  (await call<{ lanes: Lane[] }>('GET', '/progress')).body.lanes.find((one) => one.accountId === account);
const hold = (account: number, stopped: boolean) => call('POST', '/accounts/hold', { accounts: [account], stopped });

let shop: number;
beforeAll(async () => {
  shop = await accountOf('Shopfront');
});
afterEach(() => hold(shop, false));

test('nothing goes to an account that is stopped; it goes on where it was', async () => {
  const item = await readyItem();
  await hold(shop, true);
  expect((await laneOf(shop))?.paused).toBe(true);
  await publishItems([item.id], [shop]);
  expect((await jobsOf(item.id)).map((one) => one.state)).toEqual(['waiting']);
  expect(await stateOn(item.id, shop)).toBe('waiting');
  await hold(shop, false);
  await until(
    () => stateOn(item.id, shop),
    (state) => state === 'live',
  );
  expect((await marketListings('shopfront', item.sku)).map((one) => one.state)).toEqual(['live']);
});

test('a run that is stopped keeps what it has not sent, and sends it when it goes on', async () => {
  const items = await Promise.all([readyItem(), readyItem(), readyItem()]);
  await hold(shop, true);
  const { body } = await publishItems(
    items.map((one) => one.id),
    [shop],
  );
  expect((await call<{ held: number }>('POST', `/runs/${body.runId}/stop`, {})).body.held).toBe(3);
  expect(await runOf(body.runId)).toMatchObject({ stopped: true, held: 3, waiting: 0 });
  await hold(shop, false);
  // The account goes on, the run does not: others are sent meanwhile.
  const another = await readyItem();
  await publishItems([another.id], [shop]);
  await until(
    () => stateOn(another.id, shop),
    (state) => state === 'live',
  );
  expect(await runOf(body.runId)).toMatchObject({ held: 3, done: 0 });
  expect((await call<{ resumed: number }>('POST', `/runs/${body.runId}/resume`, {})).body.resumed).toBe(3);
  await until(
    () => runOf(body.runId),
    (run) => run?.done === 3,
  );
});

test('what is sold is ended although its run is stopped', async () => {
  const item = await readyItem();
  await publishItems([item.id], [shop]);
  await until(
    () => stateOn(item.id, shop),
    (state) => state === 'live',
  );
  const { body } = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 15_100 } }],
    send: true,
  });
  await call('POST', `/runs/${body.runId}/stop`, {});
  await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 15_000 });
  await until(
    () => marketListings('shopfront', item.sku),
    ([one]) => one?.state === 'ended',
  );
});

test('a job that is taken out is not sent, and the item is as it was', async () => {
  const item = await readyItem();
  await hold(shop, true);
  await publishItems([item.id], [shop]);
  const [job] = await jobsOf(item.id);
  expect((await call<{ skipped: number }>('POST', '/jobs/skip', { jobs: [job?.id] })).body.skipped).toBe(1);
  expect((await call<{ skipped: number }>('POST', '/jobs/skip', { jobs: [job?.id] })).body.skipped).toBe(0);
  await hold(shop, false);
  const after = await readyItem();
  await publishItems([after.id], [shop]);
  await until(
    () => stateOn(after.id, shop),
    (state) => state === 'live',
  );
  expect(await marketListings('shopfront', item.sku)).toEqual([]);
  expect((await jobsOf(item.id)).map((one) => one.state)).toEqual(['skipped']);
});

describe('at a later time', () => {
  const later = (id: number, at: Date, title = 'In the evening') =>
    call<{ id: number; field: string }>('POST', '/publish/later', {
      publish: { selection: { kind: 'items', ids: [id] }, accounts: [shop], without: [], as: 'live' },
      at: at.toISOString(),
      title,
    });
  const scheduled = async () =>
    (await call<{ scheduled: { id: number; title: string; dueAt: string }[] }>('GET', '/scheduled')).body.scheduled;

  test('it is sent then, as it is then, and once', async () => {
    const item = await readyItem();
    await later(item.id, new Date(Date.now() + 1_500));
    const { item: now } = (await call<{ item: { version: number } }>('GET', `/items/${item.id}`)).body;
    const title = `${item.sku} as it is then`;
    await call('PATCH', `/items/${item.id}`, { baseVersion: now.version, patch: { title } });
    const [there] = await until(
      () => marketListings('shopfront', item.sku),
      (all) => all.length > 0,
    );
    expect(there?.summary.title).toBe(title);
    await until(
      () => stateOn(item.id, shop),
      (state) => state === 'live',
    );
    expect(await marketListings('shopfront', item.sku)).toHaveLength(1);
  });

  test('until then it stands in the outbox, soonest first, and can be called off once', async () => {
    const item = await readyItem();
    const { body } = await later(item.id, new Date(Date.now() + 7_200_000), item.sku);
    await later(item.id, new Date(Date.now() + 3_600_000), `${item.sku} sooner`);
    const mine = (await scheduled()).filter((one) => one.title.startsWith(item.sku));
    expect(mine.map((one) => one.title)).toEqual([`${item.sku} sooner`, item.sku]);
    expect((await call('POST', `/scheduled/${body.id}/cancel`, {})).status).toBe(201);
    expect((await call('POST', `/scheduled/${body.id}/cancel`, {})).status).toBe(409);
    expect((await scheduled()).some((one) => one.id === body.id)).toBe(false);
    await call('POST', `/scheduled/${mine[0]?.id}/cancel`, {});
  });

  test.each([
    ['a time that has passed', () => new Date(Date.now() - 1_000)],
    ['more than a year ahead', () => new Date(Date.now() + 400 * 86_400_000)],
  ])('%s is refused at its place', async (_, at) => {
    const item = await readyItem();
    expect(await later(item.id, at())).toMatchObject({ status: 422, body: { field: 'at' } });
  });
});

test.each([
  ['/runs/99999999/stop', 404],
  ['/scheduled/99999999/cancel', 409],
])('%s: what is not there is told as such', async (path, status) =>
  expect((await call('POST', path, {})).status).toBe(status),
);
