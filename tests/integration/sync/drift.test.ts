import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

type Drift = {
  listings: {
    listingId: number;
    accountId: number;
    fields: { field: string; sent: unknown; ours: unknown; theirs: unknown; verdict: string }[];
  }[];
};
const driftOf = async (item: number) => (await call<Drift>('GET', `/drift?item=${item}`)).body.listings;

async function liveOn(name: string, market: string) {
  const item = await readyItem();
  const account = await accountOf(name);
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  const [listing] = await marketListings(market, item.sku);
  return { ...item, account, remote: listing?.id ?? '' };
}
const titleThere = async (market: string, sku: string) => (await marketListings(market, sku))[0]?.summary.title;

async function changedThere(title: string) {
  const item = await liveOn('Oakhand', 'oakhand');
  await control('oakhand', 'change', { listing: item.remote, set: { name: title } });
  const [drift] = await until(
    () => driftOf(item.id),
    (all) => all.length === 1,
  );
  return { ...item, drift };
}

test('what only they changed is shown with both sides, and theirs can be taken over', async () => {
  const item = await changedThere('Renamed over there');
  expect(item.drift?.fields).toEqual([
    expect.objectContaining({ field: 'title', theirs: 'Renamed over there', verdict: 'theirs' }),
  ]);
  const which = { listing: item.drift?.listingId, fields: ['title'] };
  expect((await call('POST', '/drift/settle', { which, side: 'theirs' })).status).toBe(201);
  expect(await driftOf(item.id)).toEqual([]);
  expect(await stateOn(item.id, item.account)).toBe('live');
  expect(await titleThere('oakhand', item.sku)).toBe('Renamed over there');
  // Asked once more there is nothing left.
  expect((await call('POST', '/drift/settle', { which, side: 'theirs' })).status).toBe(409);
});

test('ours is put back', async () => {
  const item = await changedThere('Somebody was here');
  const { title } = (await sheet(item.id)).item;
  await call('POST', '/drift/settle', {
    which: { listing: item.drift?.listingId, fields: ['title'] },
    side: 'ours',
  });
  await until(
    () => titleThere('oakhand', item.sku),
    (seen) => seen === title,
  );
  expect(await driftOf(item.id)).toEqual([]);
});

test('changed on both sides: nothing is overwritten unseen, other fields go on', async () => {
  const item = await changedThere('Their own words');
  const { version } = (await sheet(item.id)).item;
  await call('PATCH', `/items/${item.id}`, {
    baseVersion: version,
    patch: { title: 'Our newer words', price: 15_500 },
  });
  expect(await stateOn(item.id, item.account)).toBe('conflict');
  await publishItems([item.id], [item.account]);
  await until(
    () => marketListings('oakhand', item.sku),
    ([one]) => one?.summary.price === 15_500,
  );
  expect(await titleThere('oakhand', item.sku)).toBe('Their own words');
  expect((await driftOf(item.id))[0]?.fields).toEqual([
    expect.objectContaining({
      field: 'title',
      ours: 'Our newer words',
      theirs: 'Their own words',
      verdict: 'conflict',
    }),
  ]);
  await call('POST', '/drift/settle', {
    which: { account: item.account, field: 'title', verdict: 'conflict' },
    side: 'ours',
  });
  await until(
    () => titleThere('oakhand', item.sku),
    (seen) => seen === 'Our newer words',
  );
});

test('a rule decides by itself, for what is open and for what comes', async () => {
  const open = await changedThere('Before the rule');
  const path = `/accounts/${open.account}/drift-rules`;
  const kept = await call<{ settled: number }>('PUT', path, { field: 'title', answer: 'put-back' });
  expect(kept.body.settled).toBeGreaterThanOrEqual(1);
  try {
    const item = await liveOn('Oakhand', 'oakhand');
    const title = await titleThere('oakhand', item.sku);
    await control('oakhand', 'change', { listing: item.remote, set: { name: 'After the rule' } });
    await until(
      async () => [await titleThere('oakhand', item.sku), await driftOf(item.id)],
      ([seen, drift]) => seen === title && (drift as unknown[]).length === 0,
    );
  } finally {
    await call('PUT', path, { field: 'title', answer: null });
  }
});

test('a marketplace without events is compared as a whole: what changed, what is gone', async () => {
  const changed = await liveOn('Lanesend', 'lanesend');
  const gone = await liveOn('Lanesend', 'lanesend');
  await control('lanesend', 'change', { listing: changed.remote, set: { cents: 12_300 } });
  await control('lanesend', 'remove', { listing: gone.remote });
  const done = await call<{ read: number; differing: number }>('POST', `/accounts/${changed.account}/compare`, {});
  expect(done.body.differing).toBeGreaterThanOrEqual(2);
  expect((await driftOf(changed.id))[0]?.fields).toEqual([expect.objectContaining({ field: 'price', theirs: 12_300 })]);
  const find = async () =>
    (await call<{ gone: { listingId: number; itemId: number }[] }>('GET', '/gone')).body.gone.find(
      (one) => one.itemId === gone.id,
    );
  const found = await find();
  expect(found).toBeDefined();
  await call('POST', '/gone/settle', { listings: [found?.listingId], how: 'make-again' });
  await until(
    () => stateOn(gone.id, gone.account),
    (state) => state === 'live',
  );
  const there = await marketListings('lanesend', gone.sku);
  expect(there.map((one) => one.state).sort()).toEqual(['ended', 'live']);
  expect(await find()).toBeUndefined();
});

test('what was sold out there while there is more here is told, and can be made again', async () => {
  const item = await readyItem({}, 3);
  const account = await accountOf('Shopfront');
  await publishItems([item.id], [account]);
  const path = `/items/${item.id}/listings/${account}`;
  expect((await call('PUT', path, { field: 'quantity', value: 1 })).status).toBeLessThan(300);
  await call('POST', '/publish', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
  await until(
    async () => (await marketListings('shopfront', item.sku))[0]?.summary.quantity,
    (offered) => offered === 1,
  );
  await control('shopfront', 'buy', { reference: item.sku, quantity: 1 });
  const find = async () =>
    (await call<{ gone: { listingId: number; itemId: number }[] }>('GET', '/gone')).body.gone.find(
      (one) => one.itemId === item.id,
    );
  const found = await until(find, (one) => one !== undefined);
  expect(await stateOn(item.id, account)).toBe('sold');
  await call('POST', '/gone/settle', { listings: [found?.listingId], how: 'make-again' });
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  expect(await find()).toBeUndefined();
  // Sold again, it ends here for good: then it is not asked about any more.
  await control('shopfront', 'buy', { reference: item.sku, quantity: 1 });
  const again = await until(find, (one) => one !== undefined);
  await call('POST', '/gone/settle', { listings: [again?.listingId], how: 'end' });
  expect(await find()).toBeUndefined();
});
