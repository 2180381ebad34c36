import { and, eq, sql } from 'drizzle-orm';
import { priorities } from '../../../src/core/sync';
import { closeDatabase } from '../../../src/db/client';
import { ownTransaction } from '../../../src/db/raw';
import { job, listing } from '../../../src/db/schema';
import { enqueueJobs } from '../../../src/services/records/listings/enqueue-jobs';
import { stockMove } from '../../../src/ui/data/stock-move';
import { jpeg, publishItems, readyFilm, sheet, stateOn, upload } from '../../support/items';
import { accountOf, call, marketListings, until } from '../../support/stack';

type Unsent = {
  listings: { listingId: number; itemId: number; accountId: number; fields: { field: string; label: string }[] }[];
  next: number | null;
};
type Edited = { runId: number; taskId: number; items: number; finished: boolean; title?: string };

afterAll(closeDatabase);

let oakhand: number;
let shopfront: number;
beforeAll(async () => {
  [oakhand, shopfront] = (await Promise.all(['Oakhand', 'Shopfront'].map(accountOf))) as [number, number]; // two were asked for
});

const liveFilm = async () => {
  const film = await readyFilm(6);
  await publishItems([film.id], [oakhand, shopfront]);
  for (const account of [oakhand, shopfront])
    await until(
      () => stateOn(film.id, account),
      (state) => state === 'live',
    );
  return film;
};
const edit = async (id: number, steps: unknown[], more = {}) =>
  (await call<Edited>('POST', '/edits', { selection: { kind: 'items', ids: [id] }, steps, send: true, ...more })).body;
const there = async (market: string, sku: string) => {
  const found = (await marketListings(market)).find((one) => one.summary.reference.startsWith(sku));
  if (!found) throw new Error(`nothing of ${sku} on ${market}`);
  return found.summary;
};
const unsentOf = async (item: number, account: number) => {
  const { body } = await call<Unsent>('GET', `/unsent?account=${account}&limit=200`);
  return body.listings.find((one) => one.itemId === item);
};
const fieldsOf = async (item: number, account: number) =>
  (await unsentOf(item, account))?.fields.map((one) => one.field) ?? [];
const price = [{ field: 'price', do: { verb: 'set', value: 2_345 } }];
const quiet = (id: number) =>
  until(
    async () => (await call<{ jobs: { state: string }[] }>('GET', `/jobs?item=${id}`)).body.jobs,
    (jobs) => jobs.every((one) => one.state !== 'waiting' && one.state !== 'running'),
  );

test('only to these accounts: elsewhere it is saved, told as changed, and sent field by field later', async () => {
  const film = await liveFilm();
  const before = await there('shopfront', film.sku);
  await edit(film.id, price, { part: { accounts: [oakhand] } });
  await until(
    () => there('oakhand', film.sku),
    (one) => one.price === 2_345,
  );
  await quiet(film.id);
  expect((await there('shopfront', film.sku)).price).toBe(before.price);
  expect(await stateOn(film.id, shopfront)).toBe('changed');
  expect(await stateOn(film.id, oakhand)).toBe('live');
  const unsent = await unsentOf(film.id, shopfront);
  expect(unsent?.fields).toEqual([expect.objectContaining({ field: 'price', label: 'Price' })]);
  const sent = await call<{ queued: number }>('POST', '/unsent/send', {
    listings: [{ id: unsent?.listingId, fields: ['price'] }],
  });
  expect(sent.body.queued).toBe(1);
  await until(
    () => there('shopfront', film.sku),
    (one) => one.price === 2_345,
  );
  await until(
    () => stateOn(film.id, shopfront),
    (state) => state === 'live',
  );
  expect(await unsentOf(film.id, shopfront)).toBeUndefined();
  expect((await call('POST', '/unsent/send', { listings: [{ id: unsent?.listingId }] })).status).toBe(422);
});

test('only these fields: the others stay as they are there until they are sent', async () => {
  const film = await liveFilm();
  const title = `Held back ${film.sku}`;
  await edit(film.id, [...price, { field: 'title', do: { verb: 'set', value: title } }], {
    part: { fields: ['price'] },
  });
  for (const market of ['oakhand', 'shopfront'])
    await until(
      () => there(market, film.sku),
      (one) => one.price === 2_345 && !one.title.includes('Held back'),
    );
  await quiet(film.id);
  expect(await fieldsOf(film.id, oakhand)).toContain('title');
  expect(await fieldsOf(film.id, oakhand)).not.toContain('price');
  // Everything that waits on one account, at once.
  await call('POST', '/unsent/send', { all: true, account: oakhand });
  await until(
    () => there('oakhand', film.sku),
    (one) => one.title.includes('Held back'),
  );
  expect((await there('shopfront', film.sku)).title).not.toContain('Held back');
});

test('what was only saved is not taken along by stock that goes out by itself', async () => {
  const film = await liveFilm();
  const before = await there('oakhand', film.sku);
  const { version } = (await sheet(film.id)).item;
  await call('PATCH', `/items/${film.id}`, { baseVersion: version, patch: { price: 9_876 } });
  await call('POST', `/items/${film.id}/stock`, stockMove('add', -2));
  await until(
    () => there('oakhand', film.sku),
    (one) => one.quantity === before.quantity - 2,
  );
  await quiet(film.id);
  expect((await there('oakhand', film.sku)).price).toBe(before.price);
  expect(await fieldsOf(film.id, oakhand)).toEqual(['price']);
  // Together with what is sent by hand all of it goes.
  await call('POST', '/unsent/send', { all: true, account: oakhand });
  await until(
    () => there('oakhand', film.sku),
    (one) => one.price === 9_876,
  );
});

test('at a time: nothing is changed before, it can be called off, and then nothing of it is left', async () => {
  const film = await readyFilm(2);
  const before = (await sheet(film.id)).item.price;
  const at = new Date(Date.now() + 3_600_000).toISOString();
  const planned = await edit(film.id, price, { at });
  expect(planned).toMatchObject({ items: 0, finished: false });
  expect((await sheet(film.id)).item.price).toBe(before);
  const { scheduled } = (await call<{ scheduled: { id: number; kind: string }[] }>('GET', '/scheduled')).body;
  expect(scheduled).toContainEqual(expect.objectContaining({ id: planned.taskId, kind: 'edit' }));
  // Another change of the same item does not wait for it.
  expect(await edit(film.id, [{ field: 'notes', do: { verb: 'set', value: 'now' } }])).toMatchObject({
    finished: true,
  });
  expect((await call('POST', `/scheduled/${planned.taskId}/cancel`, {})).status).toBe(201);
  expect((await call('GET', `/runs/${planned.runId}/changes`)).status).toBe(404);
  const past = await call<Edited & { field: string }>('POST', '/edits', {
    selection: { kind: 'items', ids: [film.id] },
    steps: price,
    send: false,
    at: '2020-01-01T00:00:00Z',
  });
  expect(past).toMatchObject({ status: 422, body: { field: 'at' } });

  // One that comes due is carried out by itself.
  const soon = new Date(Date.now() + 1_500).toISOString();
  await edit(film.id, price, { at: soon, send: false });
  await until(
    async () => (await sheet(film.id)).item.price,
    (now) => now === 2_345,
  );
});

test('what a marketplace takes together with its neighbours goes alone all the same', async () => {
  const hallowick = await accountOf('Hallowick');
  const film = await readyFilm(3);
  await publishItems([film.id], [hallowick]);
  await until(
    () => stateOn(film.id, hallowick),
    (state) => state === 'live',
  );
  const own = (field: string, value: unknown) =>
    call('PUT', `/items/${film.id}/listings/${hallowick}`, { field, value });
  // Returns and postage are one thing there; only the postage is sent.
  await own('extra.returns', 'none');
  await own('extra.postage', 'free');
  const terms = async () => JSON.stringify(await marketListings('hallowick', film.sku));
  const before = await terms();
  const unsent = await unsentOf(film.id, hallowick);
  expect(unsent?.fields.map((one) => one.field)).toEqual(['extra.postage', 'extra.returns']);
  await call('POST', '/unsent/send', { listings: [{ id: unsent?.listingId, fields: ['extra.postage'] }] });
  await until(terms, (text) => text.includes('"free"'));
  await quiet(film.id);
  expect((await terms()).match(/"returns":"[^"]*"/)?.[0]).toBe(before.match(/"returns":"[^"]*"/)?.[0]);
  expect(await fieldsOf(film.id, hallowick)).toEqual(['extra.returns']);
});

test('a job that is joined again and again names each field once', async () => {
  const film = await readyFilm(1);
  const fieldsAfter = async (...joins: (readonly string[] | undefined)[]) => {
    let kept: unknown;
    const work = ownTransaction(async (db) => {
      const where = sql`l.item_id = ${film.id} and l.account_id = ${oakhand}`;
      for (const only of joins) await enqueueJobs(db, { where, priority: priorities.content, runId: null, only });
      [kept] = await db
        .select({ only: job.only })
        .from(job)
        .innerJoin(listing, eq(listing.id, job.liveListing))
        .where(and(eq(listing.itemId, film.id), eq(listing.accountId, oakhand)));
      throw new Error('looked at');
    }, 1);
    await expect(work).rejects.toThrow('looked at');
    return kept;
  };
  const stock = ['quantity', 'variations'];
  expect(await fieldsAfter(stock, stock, stock, ['quantity'], stock)).toEqual({ only: stock });
  expect(await fieldsAfter(stock, ['title'], ['title'], stock)).toEqual({ only: [...stock, 'title'] });
  // Whatever differs is more than any of them.
  expect(await fieldsAfter(stock, undefined, stock)).toEqual({ only: null });
});

test('the plan lets one leave fields out, account by account: photos without texts; what is left out stays changed', async () => {
  const film = await liveFilm();
  const title = `Kept for later ${film.sku}`;
  await upload(film.id, await jpeg(820, '#2277aa'));
  await edit(
    film.id,
    [
      { field: 'title', do: { verb: 'set', value: title } },
      { field: 'photos', do: { verb: 'photo-order', order: [2, 1] } },
    ],
    { send: false },
  );
  const [oldThere, oldShop] = [(await there('oakhand', film.sku)).photos, (await there('shopfront', film.sku)).photos];
  const plan = (leave: unknown[]) => ({
    selection: { kind: 'items', ids: [film.id] },
    accounts: [oakhand, shopfront],
    without: [],
    as: 'live',
    leave,
  });
  type Plan = {
    accounts: { accountId: number; update: number; fields: { field: string; listings: number }[] }[];
    knots: { accountId: number; action: string; fields: string[]; photos: string[] | null }[];
  };
  const whole = (await call<Plan>('POST', '/publish/plan', plan([]))).body;
  const differing = whole.accounts.find((one) => one.accountId === oakhand)?.fields.map((one) => one.field) ?? [];
  expect(differing).toEqual(expect.arrayContaining(['photos', 'title']));
  const leave = [
    { account: oakhand, fields: differing.filter((field) => field !== 'photos') },
    { account: shopfront, fields: ['photos'] },
  ];
  const { knots } = (await call<Plan>('POST', '/publish/plan', plan(leave))).body;
  const order = (await sheet(film.id)).item.photos.map((photo) => photo.hash);
  const onOakhand = knots.find((one) => one.accountId === oakhand);
  expect(onOakhand?.fields).toEqual(['photos']);
  expect(onOakhand?.photos?.map((one) => one.slice(0, 64))).toEqual(order);
  expect(knots.find((one) => one.accountId === shopfront)?.photos).toBeNull();

  await call('POST', '/publish', plan(leave));
  await until(
    () => there('oakhand', film.sku),
    (one) => one.photos.length === 2 && one.photos[1] === oldThere[0],
  );
  await until(
    () => there('shopfront', film.sku),
    (one) => one.title.includes('Kept for later'),
  );
  await quiet(film.id);
  expect((await there('oakhand', film.sku)).title).not.toContain('Kept for later');
  expect((await there('shopfront', film.sku)).photos).toEqual(oldShop);
  expect(await fieldsOf(film.id, oakhand)).toContain('title');
  expect(await fieldsOf(film.id, shopfront)).toEqual(['photos']);

  // With everything left out there is nothing to send.
  const nothing = plan([{ account: shopfront, fields: ['photos'] }]);
  const answer = await call('POST', '/publish', { ...nothing, accounts: [shopfront] });
  expect([answer.status, await fieldsOf(film.id, shopfront)]).toEqual([409, ['photos']]);
});
