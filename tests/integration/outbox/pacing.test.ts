import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, marketListings, until } from '../../support/stack';

type Account = {
  id: number;
  name: string;
  paceToday: { newToday: number; madeToday: number; perMinute: number };
  pacing: { newPerDay: number; perMinute: number };
};
const account = async (name: string) => {
  const found = (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts.find(
    (one) => one.name === name,
  );
  if (!found) throw new Error(`no account ${name}`);
  return found;
};
const own = { perMinute: null, newPerDay: null, spread: false, slowStartFrom: null };
const setPace = (id: number, pace: Partial<Record<keyof typeof own, unknown>>) =>
  call('PUT', `/accounts/${id}/pace`, { pace: { ...own, ...pace } });
type Job = { itemId: number; accountId: number; state: string; message: string | null; dueAt: string };
const jobsOf = async (item: number) => (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item}`)).body.jobs;

afterEach(async () => {
  for (const name of ['Shopfront', 'Oakhand']) await setPace((await account(name)).id, {});
});

test('not one more than the day’s number is made, however many are sent at once; the rest waits for tomorrow', async () => {
  const shop = await account('Shopfront');
  const room = 3;
  await setPace(shop.id, { newPerDay: shop.paceToday.madeToday + room });
  const items = await Promise.all(Array.from({ length: 9 }, () => readyItem()));
  const ids = items.map((one) => one.id);
  const plan = await call<{ accounts: { create: number; seconds: number }[] }>('POST', '/publish/plan', {
    selection: { kind: 'items', ids },
    accounts: [shop.id],
  });
  expect(plan.body.accounts[0]).toMatchObject({ create: 9 });
  expect(plan.body.accounts[0]?.seconds).toBeGreaterThan(80_000);
  await publishItems(ids, [shop.id]);
  const jobs = await until(
    async () => (await Promise.all(ids.map(jobsOf))).flat(),
    (all) => all.filter((one) => one.state === 'done').length === room && all.every((one) => one.state !== 'running'),
  );
  const waiting = jobs.filter((one) => one.state === 'waiting');
  expect(waiting).toHaveLength(9 - room);
  for (const one of waiting) {
    expect(one.message).toContain('new listings a day are reached');
    expect(new Date(one.dueAt).getUTCHours()).toBe(0);
  }
  const there = (await marketListings('shopfront')).filter((one) =>
    items.some((item) => item.sku === one.summary.reference),
  );
  expect(there).toHaveLength(room);
  // Given more room, they go when they are asked for again.
  await setPace(shop.id, {});
  await publishItems(ids, [shop.id]);
  for (const id of ids)
    await until(
      () => stateOn(id, shop.id),
      (state) => state === 'live',
    );
});

test('spread over the day: the next one waits its part of it', async () => {
  const shop = await account('Oakhand');
  const [first, second] = [await readyItem(), await readyItem()];
  await publishItems([first.id], [shop.id]);
  await until(
    () => stateOn(first.id, shop.id),
    (state) => state === 'live',
  );
  await setPace(shop.id, { spread: true, newPerDay: 1_000 });
  await publishItems([second.id], [shop.id]);
  const [job] = await until(
    () => jobsOf(second.id),
    ([one]) => one?.message !== null && one?.state === 'waiting',
  );
  expect(job?.message).toBe('New listings are spread over the day');
  const seconds = (new Date(job?.dueAt ?? 0).getTime() - Date.now()) / 1000;
  expect(seconds).toBeGreaterThan(0);
  expect(seconds).toBeLessThanOrEqual(87);
  // Changes of what is live do not wait for it.
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [first.id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 12_300 } }],
    send: true,
  });
  await until(
    () => marketListings('oakhand', first.sku),
    ([one]) => one?.summary.price === 12_300,
  );
});

test('a new shop begins with a tenth; nonsense is refused at its place', async () => {
  const shop = await account('Oakhand');
  await setPace(shop.id, { slowStartFrom: new Date().toISOString().slice(0, 10) });
  const now = await account('Oakhand');
  expect(now.paceToday.newToday).toBe(Math.floor(shop.pacing.newPerDay / 10));
  expect((await setPace(shop.id, { newPerDay: 0 })).status).toBe(422);
  expect((await setPace(shop.id, { slowStartFrom: 'soon' })).status).toBe(422);
  // More than the marketplace allows is not more.
  await setPace(shop.id, { newPerDay: 1_000_000, perMinute: 100_000 });
  expect((await account('Oakhand')).paceToday).toMatchObject({
    newToday: shop.pacing.newPerDay,
    perMinute: shop.pacing.perMinute,
  });
});

test('the accounts are named when a stop or a pace is asked for one that is not there', async () => {
  expect((await call('PUT', '/accounts/999999/pace', { reserve: 1 })).status).toBe(404);
  expect((await call('PUT', `/accounts/${await accountOf('Oakhand')}/pace`, { reserve: -1 })).status).toBe(422);
  expect((await call('POST', '/accounts/hold', { accounts: [], stopped: true })).status).toBe(422);
});
