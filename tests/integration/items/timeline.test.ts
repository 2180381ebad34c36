import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

type Entry =
  | { kind: 'change'; id: number; field: string; byName: string; from: unknown; to: unknown; accountId: number | null }
  | { kind: 'answer'; id: number; outcome: string; accountId: number; fields: string[]; message: string | null };
const timeline = async (id: number) => (await call<{ history: Entry[] }>('GET', `/items/${id}/history`)).body.history;
const answers = async (id: number) =>
  (await timeline(id)).filter((entry): entry is Extract<Entry, { kind: 'answer' }> => entry.kind === 'answer');

test('what was changed and what was answered stand in one timeline, newest first', async () => {
  const { id, sku } = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await publishItems([id], [oakhand]);
  await until(
    () => answers(id),
    (all) => all.some((one) => one.outcome === 'created'),
  );
  const { version } = (await sheet(id)).item;
  await call('PATCH', `/items/${id}`, { baseVersion: version, patch: { title: 'Told anew after it was live' } });
  await publishItems([id], [oakhand]);
  const seen = await until(
    () => timeline(id),
    (all) => all.some((one) => one.kind === 'answer' && one.outcome === 'changed'),
  );
  const kinds = seen.map((one) => (one.kind === 'answer' ? one.outcome : one.field));
  expect(kinds.indexOf('changed')).toBeLessThan(kinds.indexOf('title'));
  expect(kinds.indexOf('title')).toBeLessThan(kinds.indexOf('created', kinds.indexOf('title')));
  expect(seen.find((one) => one.kind === 'answer' && one.outcome === 'changed')).toMatchObject({
    accountId: oakhand,
    fields: ['title'],
  });
  expect((await marketListings('oakhand', sku))[0]?.summary.title).toBe('Told anew after it was live');
});

test('a refusal stands there in the marketplace’s own words', async () => {
  const { id, sku } = await readyItem();
  const pippet = await accountOf('Pippet');
  await publishItems([id], [pippet]);
  const [live] = await until(
    () => marketListings('pippet', sku),
    ([one]) => one?.state === 'live',
  );
  // While an offer is open it cannot be ended.
  await control('pippet', 'offer', { listing: live?.id, amount: 9_000 });
  await call('POST', '/listings/end', { selection: { kind: 'items', ids: [id] }, accounts: [pippet] });
  const all = await until(
    () => answers(id),
    (some) => some.some((one) => one.outcome === 'failed'),
  );
  expect(all.find((one) => one.outcome === 'failed')?.message).toMatch(/offer/i);
});

test('a live listing is not left out before it is ended', async () => {
  const { id, sku } = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await publishItems([id], [oakhand]);
  await until(
    () => stateOn(id, oakhand),
    (state) => state === 'live',
  );
  const out = () =>
    call<{ title: string; fix: string }>('PUT', `/items/${id}/listings/${oakhand}/target`, { here: false });
  expect(await out()).toMatchObject({ status: 409, body: { fix: 'End the listing' } });
  await call('POST', '/listings/end', { selection: { kind: 'items', ids: [id] }, accounts: [oakhand] });
  await until(
    () => marketListings('oakhand', sku),
    ([one]) => one?.state === 'ended',
  );
  await until(out, (answer) => answer.status === 200);
});

test('an item whose listing is on its way there is not left out meanwhile', async () => {
  const { id, sku } = await readyItem();
  const shop = await accountOf('Shopfront');
  const hold = (stopped: boolean) => call('POST', '/accounts/hold', { accounts: [shop], stopped });
  await hold(true);
  try {
    await publishItems([id], [shop]);
    const out = () => call<{ fix: string }>('PUT', `/items/${id}/listings/${shop}/target`, { here: false });
    expect(await out()).toMatchObject({ status: 409, body: { fix: expect.stringContaining('outbox') } });
    const { body } = await call<{ jobs: { id: number }[] }>('GET', `/jobs?item=${id}&account=${shop}`);
    await call('POST', '/jobs/skip', { jobs: body.jobs.map((one) => one.id) });
    expect((await out()).status).toBe(200);
  } finally {
    await hold(false);
  }
  expect(await marketListings('shopfront', sku)).toEqual([]);
});

test('two people write the same table of variations: the second is asked, not the first overwritten', async () => {
  const axes = [{ name: 'Colour', values: ['Black', 'Tan'] }];
  const rows = (quantity: number) =>
    ['Black', 'Tan'].map((value) => ({ values: [value], on: true, sku: '', quantity, price: null, barcode: '' }));
  const { id } = await readyItem({ axes, variations: rows(1) });
  const { version } = (await sheet(id)).item;
  const write = (quantity: number) =>
    call<{ code?: string; errors?: { field: string; message: string }[] }>('PATCH', `/items/${id}`, {
      baseVersion: version,
      patch: { variations: rows(quantity) },
    });
  expect((await write(4)).status).toBe(200);
  const second = await write(9);
  expect(second).toMatchObject({ status: 409, body: { code: 'conflict' } });
  expect(second.body.errors?.[0]?.field).toBe('variations');
  expect(JSON.parse(second.body.errors?.[0]?.message ?? 'null')[0].quantity).toBe(4);
  expect((await sheet(id)).item.quantity).toBe(8);
});
