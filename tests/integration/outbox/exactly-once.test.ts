import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, faultsLeft, marketListings, until } from '../../support/stack';

/** Where each of them takes a creation. */
const markets = [
  ['Hallowick', 'hallowick', '/listings'],
  ['Pippet', 'pippet', '/things'],
] as const;

afterEach(() => Promise.all(markets.map(([, market]) => control(market, 'calm'))));

/** The same on both at the same time: the pauses between the tries are long, and each marketplace has its own lane. */
const onBoth = (story: (name: string, market: string, path: string) => Promise<void>) =>
  Promise.all(markets.map(([name, market, path]) => story(name, market, path)));

describe('on a marketplace that honours keys, and on one that does not', () => {
  test.each(['drop-after', 'drop-before', 'error-500'] as const)(
    '%s at the creation: in the end it is there exactly once',
    (kind) =>
      onBoth(async (name, market, path) => {
        const item = await readyItem();
        const account = await accountOf(name);
        // The photo goes up first: the fault has to meet the creation itself.
        await control(market, 'fault', { kind, times: 2, method: 'POST', path });
        await publishItems([item.id], [account]);
        await until(
          () => stateOn(item.id, account),
          (state) => state === 'live',
          45_000,
        );
        const there = await marketListings(market, item.sku);
        expect(there.map((listing) => listing.state)).toEqual(['live']);
        // Dropped after the work a repeat is not always needed: the listing is found; at least one fault has met it.
        expect(await faultsLeft(market)).toBeLessThan(2);
      }),
  );

  test('too many requests: it waits as long as it is told and loses nothing', () =>
    onBoth(async (name, market) => {
      const item = await readyItem();
      const account = await accountOf(name);
      await control(market, 'fault', { kind: 'busy-429', times: 3, ms: 1_000, method: 'POST' });
      await publishItems([item.id], [account]);
      await until(
        () => stateOn(item.id, account),
        (state) => state === 'live',
        45_000,
      );
      expect(await marketListings(market, item.sku)).toHaveLength(1);
    }));
});

test('ten changes while it waits become few calls, and the last one holds', async () => {
  const item = await readyItem();
  const account = await accountOf('Hallowick');
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  await control('hallowick', 'fault', { kind: 'slow', times: 1, ms: 1_500, method: 'PATCH' });
  for (let step = 1; step <= 10; step++) {
    await call('POST', '/edits', {
      selection: { kind: 'items', ids: [item.id] },
      steps: [{ field: 'price', do: { verb: 'set', value: 14_000 + step } }],
      send: true,
    });
  }
  await until(
    () => marketListings('hallowick', item.sku),
    ([listing]) => listing?.summary.price === 14_010,
  );
  const { body } = await call<{ jobs: { itemId: number }[] }>('GET', '/jobs?limit=100');
  expect(body.jobs.filter((job) => job.itemId === item.id).length).toBeLessThanOrEqual(4);
});

test('an open offer blocks the ending; the reason is told in the marketplace’s words, and trying again works later', async () => {
  const item = await readyItem();
  const account = await accountOf('Pippet');
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  const [listing] = await marketListings('pippet', item.sku);
  await control('pippet', 'offer', { listing: listing?.id, amount: 5_000 });
  await call('POST', '/listings/end', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'attention',
  );
  expect((await sheet(item.id)).columns.find((column) => column.accountId === account)?.lastError?.message).toContain(
    'open offer',
  );
  const { body } = await call<{ causes: { message: string; count: number; accountId: number }[] }>('GET', '/causes');
  const cause = body.causes.find((one) => one.message.includes('open offer') && one.accountId === account);
  expect(cause).toBeDefined();
  await control('pippet', 'withdraw', { listing: listing?.id });
  await call('POST', '/jobs/retry', { account, message: cause?.message });
  await until(
    () => marketListings('pippet', item.sku),
    ([one]) => one?.state === 'ended',
  );
});

test('a locked account waits and says so; nothing fails', async () => {
  const item = await readyItem();
  const account = await accountOf('Oakhand');
  await control('oakhand', 'lock', { seller: 'grainhouse', minutes: 0.1 });
  await publishItems([item.id], [account]);
  type Account = { id: number; lockedUntil: string | null };
  await until(
    async () => (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts,
    (all) => all.some((one) => one.id === account && one.lockedUntil !== null),
  );
  type Job = { state: string; message: string | null };
  const [waiting] = (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item.id}`)).body.jobs;
  expect(waiting?.state).toBe('waiting');
  expect(waiting?.message).toContain('locked');
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
    45_000,
  );
  expect(await marketListings('oakhand', item.sku)).toHaveLength(1);
});
