import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

type Lane = { accountId: number; waiting: number; held: number; paused: boolean; unwellSince: string | null };
const lane = async (account: number) =>
  (await call<{ lanes: Lane[] }>('GET', '/progress')).body.lanes.find((one) => one.accountId === account);
const isLive = (id: number, account: number) =>
  until(
    () => stateOn(id, account),
    (state) => state === 'live',
    60_000,
  );

test('as drafts: meant for the account, nothing is sent', async () => {
  const item = await readyItem();
  const account = await accountOf('Oakhand');
  const done = await call<{ queued: number }>('POST', '/publish', {
    selection: { kind: 'items', ids: [item.id] },
    accounts: [account],
    as: 'draft',
  });
  expect(done).toMatchObject({ status: 201, body: { queued: 0 } });
  expect(await stateOn(item.id, account)).toBe('draft');
  expect(await marketListings('oakhand', item.sku)).toEqual([]);
});

test('at a time: it goes out then, and can be called off before', async () => {
  const [soon, never] = [await readyItem(), await readyItem()];
  const account = await accountOf('Oakhand');
  const later = (id: number, ms: number) =>
    call<{ id: number }>('POST', '/publish/later', {
      publish: { selection: { kind: 'items', ids: [id] }, accounts: [account] },
      at: new Date(Date.now() + ms).toISOString(),
      title: 'One item',
    });
  const { body } = await later(never.id, 60_000);
  expect((await later(soon.id, 1_500)).status).toBe(201);
  expect((await later(soon.id, -1_000)).status).toBe(422);
  expect((await call('POST', `/scheduled/${body.id}/cancel`, {})).status).toBe(201);
  expect((await call('POST', `/scheduled/${body.id}/cancel`, {})).status).toBe(409);
  await isLive(soon.id, account);
  expect(await marketListings('oakhand', never.sku)).toEqual([]);
});

test('an account is stopped and goes on; an ending waits with the rest, nothing is lost', async () => {
  const item = await readyItem();
  const account = await accountOf('Oakhand');
  await call('POST', '/accounts/hold', { accounts: [account], stopped: true });
  try {
    await publishItems([item.id], [account]);
    expect(await lane(account)).toMatchObject({ paused: true });
    // The other accounts are not kept waiting.
    const other = await readyItem();
    const hallowick = await accountOf('Hallowick');
    await publishItems([other.id], [hallowick]);
    await isLive(other.id, hallowick);
    expect(await marketListings('oakhand', item.sku)).toEqual([]);
  } finally {
    await call('POST', '/accounts/hold', { accounts: [account], stopped: false });
  }
  await isLive(item.id, account);
});

test('a run is stopped and goes on; what is sold meanwhile does not wait', async () => {
  const item = await readyItem({}, 3);
  const account = await accountOf('Oakhand');
  await publishItems([item.id], [account]);
  await isLive(item.id, account);
  await call('POST', '/accounts/hold', { accounts: [account], stopped: true });
  const edited = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 11_100 } }],
    send: true,
  });
  const stopped = await call<{ held: number }>('POST', `/runs/${edited.body.runId}/stop`, {});
  expect(stopped.body.held).toBe(1);
  await call('POST', '/accounts/hold', { accounts: [account], stopped: false });
  expect(await lane(account)).toMatchObject({ held: 1 });
  await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 9_000 });
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.quantity === 2,
  );
  // The sale took its own job along: nothing of the run is left to go on.
  expect((await call<{ resumed: number }>('POST', `/runs/${edited.body.runId}/resume`, {})).body.resumed).toBe(0);
});

test('a run that was stopped goes on when it is let, and what it holds is sent then', async () => {
  const item = await readyItem({}, 3);
  const account = await accountOf('Oakhand');
  await publishItems([item.id], [account]);
  await isLive(item.id, account);
  await call('POST', '/accounts/hold', { accounts: [account], stopped: true });
  const edited = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: [item.id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 12_200 } }],
    send: true,
  });
  await call('POST', `/runs/${edited.body.runId}/stop`, {});
  await call('POST', '/accounts/hold', { accounts: [account], stopped: false });
  expect((await marketListings('oakhand', item.sku))[0]?.summary.price).toBe(14_900);
  expect((await call<{ resumed: number }>('POST', `/runs/${edited.body.runId}/resume`, {})).body.resumed).toBe(1);
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.price === 12_200,
  );
});

test('a marketplace that does not answer is left alone, the others go on, and it catches up when it is back', async () => {
  const items = await Promise.all(Array.from({ length: 6 }, () => readyItem()));
  const other = await readyItem();
  const [swishel = 0, oakhand = 0] = await Promise.all(['Swishel', 'Oakhand'].map(accountOf));
  await control('swishel', 'fault', { kind: 'drop-before', times: 40 });
  await publishItems(
    items.map((one) => one.id),
    [swishel],
  );
  await publishItems([other.id], [oakhand]);
  await isLive(other.id, oakhand);
  await until(
    () => lane(swishel),
    (seen) => seen?.unwellSince !== null,
    60_000,
  );
  await control('swishel', 'calm');
  for (const item of items) await isLive(item.id, swishel);
  expect((await lane(swishel))?.unwellSince).toBeNull();
  for (const item of items)
    expect((await marketListings('swishel', item.sku)).map((one) => one.state)).toEqual(['live']);
});

test('a copy of a shop skips what is there, and takes what was written for the model', async () => {
  const [both, one] = [await readyItem(), await readyItem()];
  const [from = 0, to = 0] = await Promise.all(['Hallowick', 'Oakhand'].map(accountOf));
  await call('PUT', `/items/${one.id}/listings/${from}`, { field: 'title', value: 'Written for the model' });
  await publishItems([both.id, one.id], [from]);
  await publishItems([both.id], [to]);
  for (const id of [both.id, one.id]) await isLive(id, from);
  await isLive(both.id, to);
  const body = {
    from,
    to,
    as: 'live',
    takeOwn: true,
    selection: { kind: 'items', ids: [both.id, one.id] },
  };
  expect((await call('POST', '/copies/plan', body)).body).toMatchObject({ live: 2, there: 1, copied: 1 });
  expect((await call('POST', '/copies', body)).status).toBe(201);
  await isLive(one.id, to);
  const title = (await marketListings('oakhand', one.sku))[0]?.summary.title;
  const modelTitle = (await marketListings('hallowick', one.sku))[0]?.summary.title;
  expect(modelTitle).toContain('Written for the model');
  expect(title).toBe(modelTitle);
  expect(await marketListings('oakhand', both.sku)).toHaveLength(1);
  expect((await call('POST', '/copies', body)).status).toBe(422);
});

test('a link is cut and made again by its stock number; their listing stays untouched', async () => {
  const item = await readyItem();
  const account = await accountOf('Oakhand');
  await publishItems([item.id], [account]);
  await isLive(item.id, account);
  const [there] = await marketListings('oakhand', item.sku);
  const { body } = await call<{ links: { listingId: number; remoteId: string }[] }>('GET', `/links?q=${item.sku}`);
  expect(body.links).toEqual([expect.objectContaining({ remoteId: there?.id })]);
  expect((await call('POST', '/links/cut', { listings: [body.links[0]?.listingId] })).status).toBe(201);
  expect(await stateOn(item.id, account)).toBe('draft');
  expect((await marketListings('oakhand', item.sku))[0]?.state).toBe('live');
  const { body: found } = await call<{
    unlinked: { remoteId: string; match: { itemId: number; isSure: boolean } | null }[];
  }>('GET', `/accounts/${account}/unlinked`);
  expect(found.unlinked.find((one) => one.remoteId === there?.id)?.match).toMatchObject({
    itemId: item.id,
    isSure: true,
    why: expect.arrayContaining([`the same stock number, ${item.sku}`]),
  });
  const links = [{ remoteId: there?.id, itemId: item.id }];
  const again = { account, links, afterwards: 'send' };
  expect((await call('POST', '/links', again)).body).toMatchObject({ linked: 1, refused: [] });
  expect((await call('POST', '/links', again)).body).toMatchObject({ linked: 0 });
  await isLive(item.id, account);
  expect(await marketListings('oakhand', item.sku)).toHaveLength(1);
  expect((await sheet(item.id)).columns.find((one) => one.accountId === account)?.url).toContain(there?.id);
});

test('an open page is told of a sale by itself', async () => {
  const item = await readyItem();
  const answer = await fetch(`${stack.base}/api/v1/live`, { headers: { authorization: `Bearer ${stack.token}` } });
  expect(answer.headers.get('content-type')).toContain('text/event-stream');
  const reader = answer.body?.getReader();
  const read = async () => new TextDecoder().decode((await reader?.read())?.value);
  await until(read, (text) => text.includes('"progress"'));
  await call('POST', `/items/${item.id}/sold`, { quantity: 1, unitPrice: 9_000 });
  const news = await until(read, (text) => text.includes('"sales"'));
  expect(news).toContain('data:');
  await reader?.cancel();
  expect((await fetch(`${stack.base}/api/v1/live`)).status).toBe(401);
});
