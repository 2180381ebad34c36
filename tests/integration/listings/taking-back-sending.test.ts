import { closeDatabase } from '../../../src/db/client';
import { comesTo, publishItems, readyFilm } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

afterAll(closeDatabase);

const back = (run: number) => call<{ runId: number; queued: number; title?: string }>('POST', `/runs/${run}/back`, {});
const live = async (market: string, sku: string) =>
  (await marketListings(market, sku)).filter((one) => one.state === 'live').length;
const counts = async (ids: number[]) =>
  (
    await call<{ accounts: { accountId: number; live: number }[] }>('POST', '/listings/end/count', {
      selection: { kind: 'items', ids },
    })
  ).body.accounts;

test('a publishing is taken back: what it listed ends, what was listed before stays; the ending is taken back, too', async () => {
  const [oakhand, shopfront] = [await accountOf('Oakhand'), await accountOf('Shopfront')];
  const [old, fresh, sold] = [await readyFilm(3), await readyFilm(3), await readyFilm(1)];
  await publishItems([old.id], [oakhand]);
  await comesTo(old.id, oakhand, 'live');
  const ids = [old.id, fresh.id, sold.id];
  const { body } = await publishItems(ids, [oakhand, shopfront]);
  for (const id of ids) for (const place of [oakhand, shopfront]) await comesTo(id, place, 'live');
  expect(await counts(ids)).toEqual(
    [
      { accountId: oakhand, live: 3 },
      { accountId: shopfront, live: 3 },
    ].sort((a, b) => a.accountId - b.accountId),
  );
  // What was sold by it stays sold.
  const [there] = await marketListings('oakhand', sold.sku);
  await control('oakhand', 'buy', { listing: there?.id, quantity: 1 });
  await comesTo(sold.id, oakhand, 'sold');
  await comesTo(sold.id, shopfront, 'ended');

  // Two at the same moment: it is taken back once.
  const both = await Promise.all([back(body.runId), back(body.runId)]);
  expect(both.map((one) => one.status).sort()).toEqual([201, 409]);
  const ending = both.find((one) => one.status === 201)?.body;
  expect(ending?.queued).toBe(3);
  await comesTo(fresh.id, oakhand, 'ended');
  await comesTo(fresh.id, shopfront, 'ended');
  await comesTo(old.id, shopfront, 'ended');
  await comesTo(old.id, oakhand, 'live');
  expect(await live('oakhand', old.sku)).toBe(1);
  expect(await live('oakhand', fresh.sku)).toBe(0);

  // Taken back again: those three are live once more, each once; nothing else is.
  const again = await back(ending?.runId ?? 0);
  expect(again.body.queued).toBe(3);
  for (const [id, place] of [
    [fresh.id, oakhand],
    [fresh.id, shopfront],
    [old.id, shopfront],
  ] as const)
    await comesTo(id, place, 'live');
  await until(
    () => live('shopfront', fresh.sku),
    (count) => count === 1,
  );
  expect(await live('oakhand', sold.sku)).toBe(0);
  expect(await live('shopfront', sold.sku)).toBe(0);
  expect((await back(ending?.runId ?? 0)).status).toBe(409);
});

test('only what was sent is taken back this way, and only what is there', async () => {
  const item = await readyFilm(2);
  const { body } = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'location', do: { verb: 'set', value: 'K-1' } }],
    send: false,
  });
  expect((await back(body.runId)).status).toBe(422);
  expect((await back(999_999_999)).status).toBe(404);
  expect(await counts([item.id])).toEqual([]);
  const nothing = await call('POST', '/listings/end', {
    selection: { kind: 'items', ids: [item.id] },
    accounts: [await accountOf('Oakhand')],
  });
  expect(nothing.status).toBe(422);
});
