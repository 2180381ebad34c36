import { jpeg, publishItems, readyFilm, sheet, stateOn, upload } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accounts, call, control, faultsLeft, marketListings, stack, until } from '../../support/stack';

const accountOn = async (market: string): Promise<number> => {
  const found = (await accounts()).find((one) => one.market === market);
  if (!found) throw new Error(`no account on ${market}`);
  return found.id;
};

afterEach(async () => {
  for (const market of ['selasar', 'crateway', 'lotbarn', 'lanesend']) await control(market, 'calm');
});

test.each(['swishel', 'glintfeed', 'selasar', 'crateway', 'lotbarn', 'shopfront'])(
  'an item goes live on %s, is changed there, sold out elsewhere, and ended',
  async (market) => {
    const account = await accountOn(market);
    const item = await readyFilm();
    const preview = await previewOn(item.id, market);
    expect(preview.values.flatMap((value) => value.issues)).toEqual([]);
    expect((await publishItems([item.id], [account])).status).toBe(201);
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'live',
    );
    const reference = String(valueFor(preview, 'sku').value);
    const [there, ...others] = await marketListings(market, reference);
    expect(others).toEqual([]);
    expect(there?.state).toBe('live');

    // A new price arrives where there is a price.
    await call('POST', '/edits', {
      selection: { kind: 'items', ids: [item.id] },
      steps: [{ field: 'price', do: { verb: 'percent', basisPoints: 1_000 } }],
      send: true,
    });
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'live',
    );
    const changed = await previewOn(item.id, market);
    const [now] = await marketListings(market, reference);
    if (market !== 'glintfeed') expect(now?.summary.price).toBe(valueFor(changed, 'price').value);

    // All of it sold at a fair: it is gone there, too.
    await call('POST', `/items/${item.id}/sold`, { quantity: 3, unitPrice: 1_500 });
    await until(
      async () => (await marketListings(market, reference))[0]?.state,
      (state) => state === (market === 'selasar' ? 'off' : 'ended'),
    );
  },
  60_000,
);

test('a lost answer of a marketplace without keys leaves one listing, found by its stock number', async () => {
  for (const [market, path] of [
    ['lotbarn', '/batches'],
    ['lanesend', '/ads'],
    ['swishel', '/finds'],
  ] as const) {
    const account = await accountOn(market);
    const item = await readyFilm();
    await control(market, 'fault', { kind: 'drop-after', times: 1, method: 'POST', path });
    await publishItems([item.id], [account]);
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'live',
      40_000,
    );
    expect(await faultsLeft(market)).toBe(0);
    expect((await marketListings(market, item.sku)).filter((one) => one.state === 'live')).toHaveLength(1);
    await control(market, 'calm');
  }
}, 120_000);

test('a lost answer to a feed leaves one offer: the same key finds the same feed', async () => {
  const account = await accountOn('crateway');
  const item = await readyFilm();
  await control('crateway', 'fault', { kind: 'drop-after', times: 1, method: 'POST', path: '/feeds' });
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
    40_000,
  );
  expect(await faultsLeft('crateway')).toBe(0);
  expect(await marketListings('crateway', item.sku)).toHaveLength(1);
}, 60_000);

test('a refusal in review is preview with its reasons, and the next try carries another number', async () => {
  const account = await accountOn('selasar');
  const item = await readyFilm();
  await control('selasar', 'reject', { reason: 'The picture shows two things.', pointer: '/images', times: 1 });
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'waiting',
  );
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'attention',
  );
  const preview = await previewOn(item.id, 'selasar');
  expect(preview.refusal).toBe('The picture shows two things.');
  // Why, in the outbox, under what needs a person, and on the sheet: each with the field.
  type Job = { refusal: string | null; field: string | null };
  const [last] = (await call<{ jobs: Job[] }>('GET', `/jobs?item=${item.id}&account=${account}`)).body.jobs;
  expect(last).toMatchObject({ refusal: 'The picture shows two things.', field: 'photos' });
  type Cause = {
    kind: string;
    message: string;
    field: string | null;
    fix: string;
    itemIds: number[];
    accountId: number;
  };
  const { causes } = (await call<{ causes: Cause[] }>('GET', '/causes')).body;
  const cause = causes.find((one) => one.itemIds.includes(item.id));
  expect(cause).toMatchObject({
    kind: 'refused',
    message: 'The picture shows two things.',
    field: 'photos',
    fix: 'Change photos, and send it again',
  });
  type Column = { accountId: number; lastError: { message: string; field: string } | null };
  const { columns } = (await call<{ columns: Column[] }>('GET', `/items/${item.id}`)).body;
  expect(columns.find((one) => one.accountId === account)?.lastError).toMatchObject({
    message: 'Refused in review: The picture shows two things.',
    field: 'photos',
  });
  const first = item.sku;
  expect(valueFor(preview, 'sku').value).toBe(`${first}-2`);
  // Mended, all of the same reason are sent again.
  await upload(item.id, await jpeg(1_000, '#557799'));
  const again = await call<{ queued: number }>('POST', '/jobs/retry', { account, message: cause?.message });
  expect(again).toMatchObject({ status: 201, body: { queued: 1 } });
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  expect((await marketListings('selasar', `${first}-2`)).map((one) => one.state)).toEqual(['live']);
}, 60_000);

test('what is ended there is switched off, and switched on again with its number; what was deleted is made anew', async () => {
  const account = await accountOn('selasar');
  const item = await readyFilm();
  const shows = (sku: string) => marketListings('selasar', sku);
  const comesTo = (state: string) =>
    until(
      () => stateOn(item.id, account),
      (one) => one === state,
    );
  await publishItems([item.id], [account]);
  await comesTo('live');
  const [first] = await shows(item.sku);
  await call('POST', '/listings/end', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
  await comesTo('ended');
  expect(await shows(item.sku)).toMatchObject([{ id: first?.id, state: 'off' }]);
  // Its answer is lost half-way: what was switched on is found, and nothing is made beside it.
  await call('PATCH', `/items/${item.id}`, {
    baseVersion: (await sheet(item.id)).item.version,
    patch: { price: 2_090 },
  });
  await control('selasar', 'fault', { kind: 'cut-short', times: 1, method: 'POST', path: '/on' });
  const plan = await call<{ knots: { why: string }[] }>('POST', '/publish/plan', {
    selection: { kind: 'items', ids: [item.id] },
    accounts: [account],
  });
  expect(plan.body.knots).toMatchObject([{ why: 'Switched on again there, under the number that it has' }]);
  await publishItems([item.id], [account]);
  await comesTo('live');
  expect(await faultsLeft('selasar')).toBe(0);
  expect(await shows(item.sku)).toMatchObject([{ id: first?.id, state: 'live' }]);
  expect(await shows(`${item.sku}-2`)).toEqual([]);
  await call('POST', '/listings/end', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
  await comesTo('ended');
  await control('selasar', 'remove', { listing: first?.id });
  await publishItems([item.id], [account]);
  await comesTo('live');
  expect(await shows(`${item.sku}-2`)).toMatchObject([{ state: 'live' }]);
  expect(await shows(item.sku)).toMatchObject([{ state: 'ended' }]);
}, 90_000);

test('a small ad carries the day on which it ends by itself', async () => {
  const account = await accountOn('lanesend');
  const item = await readyFilm();
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  const before = await marketListings('lanesend', item.sku);
  expect(before[0]).toMatchObject({ state: 'live' });
  expect((before[0] as unknown as { endsAt: number }).endsAt).toBeGreaterThan(Date.now() + 20 * 86_400_000);
}, 60_000);

test('photos are sent in the shape that is wanted there', async () => {
  const item = await readyFilm();
  await upload(item.id, await jpeg(1_200, '#335577'));
  const selasar = await previewOn(item.id, 'selasar');
  expect(selasar.preview.photos.every((photo) => photo.ratio === 1)).toBe(true);
  const hallowick = await previewOn(item.id, 'hallowick');
  expect(hallowick.preview.photos.every((photo) => photo.ratio === null)).toBe(true);
});

test.each(['hallowick', 'pippet', 'oakhand', 'swishel', 'shopfront', 'crateway', 'lotbarn'])(
  'the fees of a sale on %s are the ones that were foreseen',
  async (market) => {
    const account = await accountOn(market);
    const item = await readyFilm(1);
    await publishItems([item.id], [account]);
    await until(
      () => stateOn(item.id, account),
      (state) => state === 'live',
    );
    const { body } = await call<{
      lines: { accountId: number; net: { fees: { commission: number; payment: number; handling: number } } }[];
    }>('GET', `/items/${item.id}/prices`);
    const foreseen = body.lines.find((line) => line.accountId === account)?.net.fees;
    const reference = String(valueFor(await previewOn(item.id, market), 'sku').value);
    const order = (await control(market, 'buy', { reference, quantity: 1 })) as { order?: string };
    const orders = (await (await fetch(`${stack.markets}/control/api/${market}/orders`)).json()) as {
      id: string;
      fee: number;
    }[];
    const fee = orders.find((one) => one.id === order.order)?.fee;
    expect(fee).toBe((foreseen?.commission ?? 0) + (foreseen?.payment ?? 0) + (foreseen?.handling ?? 0));
  },
  60_000,
);
