import { sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { planDailyRenewals } from '../../../src/services/listings/renewal/plan-daily-renewals';
import { publishItems, readyItem, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

afterAll(closeDatabase);

type Renewal = {
  listingId: number;
  itemId: number;
  blocks: string | null;
  timesMade: number;
  job: { state: string; message: string | null } | null;
};

/** As if everything there had gone live within the last hour: the demo's listings are of all ages. */
const allNew = (account: number) =>
  database().execute(
    sql`update listing set live_since = utc_timestamp(3) - interval 1 hour where account_id = ${account} and live_since < utc_timestamp(3) - interval 1 day`,
  );

async function live(name: string) {
  const item = await readyItem();
  const account = await accountOf(name);
  await publishItems([item.id], [account]);
  await until(
    () => stateOn(item.id, account),
    (state) => state === 'live',
  );
  const of = async () =>
    (
      await call<{ listings: Renewal[] }>('GET', `/renewals?order=newest&limit=500&account=${account}`)
    ).body.listings.find((one) => one.itemId === item.id);
  return { ...item, account, of };
}

test('a listing is ended and made anew under a new number, the old one is kept, and a late order still finds its item', async () => {
  const item = await live('Hallowick');
  const [before] = await marketListings('hallowick', item.sku);
  const listings = [(await item.of())?.listingId ?? 0];
  const plan = await call<{ count: number; accounts: { count: number }[] }>('POST', '/renewals/plan', { listings });
  expect(plan.body).toMatchObject({ count: 1, accounts: [{ count: 1 }] });
  expect((await call('POST', '/renewals', { listings })).status).toBe(201);
  const there = await until(
    () => marketListings('hallowick', item.sku),
    (all) => all.length === 2 && all.some((one) => one.state === 'live'),
  );
  expect(there.find((one) => one.id === before?.id)?.state).toBe('ended');
  await until(
    () => item.of(),
    (one) => one?.job?.state === 'done' && one.timesMade === 2,
  );
  const { body } = await call<{ links: { itemId: number; remoteId: string; previous: { remoteId: string }[] }[] }>(
    'GET',
    `/links?q=${item.sku}&account=${item.account}`,
  );
  expect(body.links[0]?.previous.map((one) => one.remoteId)).toEqual([before?.id]);
  expect(body.links[0]?.remoteId).not.toBe(before?.id);
});

test('an open offer blocks it: the listing stays, and the reason is said', async () => {
  const item = await live('Pippet');
  const [there] = await marketListings('pippet', item.sku);
  await control('pippet', 'offer', { listing: there?.id, amount: 9_000 });
  const seen = await until(
    () => item.of(),
    (one) => one?.blocks !== null,
  );
  expect(seen?.blocks).toContain('open offer');
  await call('POST', '/renewals', { listings: [seen?.listingId] });
  const failed = await until(
    () => item.of(),
    (one) => one?.job?.state === 'failed',
  );
  expect(failed?.job?.message).toContain('open offer');
  expect((await marketListings('pippet', item.sku)).map((one) => one.state)).toEqual(['live']);
  await control('pippet', 'withdraw', { listing: there?.id });
  await call('POST', '/renewals', { listings: [seen?.listingId] });
  await until(
    () => marketListings('pippet', item.sku),
    (all) =>
      all
        .map((one) => one.state)
        .sort()
        .join() === 'ended,live',
  );
});

test('dropped right after the ending: it is made anew once, and never twice', async () => {
  const item = await live('Hallowick');
  await control('hallowick', 'fault', { kind: 'drop-after', times: 2, method: 'POST' });
  await call('POST', '/renewals', { listings: [(await item.of())?.listingId] });
  await until(
    () => marketListings('hallowick', item.sku),
    (all) => all.length === 2 && all.filter((one) => one.state === 'live').length === 1,
    60_000,
  );
  await until(
    () => item.of(),
    (one) => one?.job?.state === 'done',
    60_000,
  );
  expect(await marketListings('hallowick', item.sku)).toHaveLength(2);
  await control('hallowick', 'calm');
});

test('the daily plan says how many are due, and is refused when it makes no sense', async () => {
  const account = await accountOf('Hallowick');
  await allNew(account);
  const rule = { on: false, minDays: 300, mostPerDay: 5, withinDays: null };
  const kept = await call<{ due: number }>('PUT', `/accounts/${account}/renewal`, rule);
  expect(kept).toMatchObject({ status: 200, body: { due: 0 } });
  expect((await call('PUT', `/accounts/${account}/renewal`, { ...rule, mostPerDay: 0 })).status).toBe(422);
});

test('every live listing is reached page by page, each once', async () => {
  type Page = { listings: { listingId: number }[]; next: number | null };
  const ids: number[] = [];
  for (let from: number | null = 0; from !== null; ) {
    const { body }: { body: Page } = await call<Page>('GET', `/renewals?order=longest&limit=25&from=${from}`);
    ids.push(...body.listings.map((one) => one.listingId));
    from = body.next;
  }
  const { body } = await call<Page>('GET', '/renewals?order=longest&limit=500');
  expect(ids.length).toBeGreaterThan(50);
  expect(ids).toEqual(body.listings.map((one) => one.listingId));
});

test('what was ended and cannot be made anew stays in sight until it is settled', async () => {
  const item = await live('Hallowick');
  const account = await accountOf('Hallowick');
  await control('hallowick', 'odd', { refuses: 'Nothing of this kind is taken any more.' });
  type Lost = { unsettled: { itemId: number; job: { state: string; message: string | null } | null }[] };
  const lost = async () =>
    (await call<Lost>('GET', `/renewals?account=${account}`)).body.unsettled.find((one) => one.itemId === item.id);
  try {
    await call('POST', '/renewals', { listings: [(await item.of())?.listingId] });
    const seen = await until(lost, (one) => one?.job?.state === 'failed', 60_000);
    expect(seen?.job?.message).toContain('Nothing of this kind');
  } finally {
    await control('hallowick', 'calm');
  }
  await call('POST', '/publish', { selection: { kind: 'items', ids: [item.id] }, accounts: [account] });
  await until(lost, (one) => one === undefined, 60_000);
}, 150_000);

test('the daily plan renews as many as it says, the longest unrenewed first, and no more that day', async () => {
  const account = await accountOf('Hallowick');
  await allNew(account);
  const rule = { on: true, minDays: 30, mostPerDay: 2, withinDays: null };
  // Today nothing is so old; in forty days everything is.
  expect((await call<{ due: number }>('PUT', `/accounts/${account}/renewal`, rule)).body.due).toBe(0);
  const later = new Date(Date.now() + 40 * 86_400_000);
  const renewedToday = async () =>
    Number(
      rowsOf<{ count: number }>(
        await database().execute(
          sql`select count(*) as count from job where account_id = ${account} and (kind = 'renew' or outcome = 'renewed') and created_at >= utc_date()`,
        ),
      )[0]?.count,
    );
  const before = await renewedToday();
  try {
    await call('PUT', `/accounts/${account}/renewal`, { ...rule, mostPerDay: before + 2 });
    expect(await planDailyRenewals(later)).toBe(2);
    expect(await planDailyRenewals(later)).toBe(0);
  } finally {
    await call('PUT', `/accounts/${account}/renewal`, { ...rule, on: false });
  }
  await until(renewedToday, (count) => count === before + 2);
});
