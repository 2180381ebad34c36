import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { account, gathering, item, listing, needLater } from '../../../src/db/schema';
import type { Need } from '../../../src/services/outbox/needs/need';
import { comesTo, publishItems, readyItem } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

afterAll(closeDatabase);

const needs = async () => (await call<{ needs: Need[] }>('GET', '/needs')).body.needs;
const needOf = async (need: string) => (await needs()).find((one) => one.need === need);
const countOf = async (need: string) => (await needOf(need))?.count ?? 0;
const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
/** How many an inventory's filter finds: the page that a cause opens shows the same. */
const foundBy = async (need: Need | undefined) => {
  const where = new URLSearchParams({ where: JSON.stringify(need?.filter), limit: '200' });
  return (await call<{ items: { id: number }[] }>('GET', `/items?${where}`)).body.items.map((one) => one.id);
};

test('what would be sold at a loss, is past its best or stands for long: each by the filter that finds it', async () => {
  const shop = await accountOf('Shopfront');
  const before = await countOf('best-before');
  const losing = await readyItem({ price: 1_500, cost: 9_000 });
  const stale = await readyItem({ price: 3_000, cost: 100, expiresOn: day(-20) });
  await publishItems([losing.id, stale.id], [shop]);
  await comesTo(losing.id, shop, 'live');
  await comesTo(stale.id, shop, 'live');
  // What is left of a price is computed anew after a while.
  await until(
    async () => foundBy(await needOf('losing')),
    (found) => found.includes(losing.id),
    60_000,
  );
  const soon = await needOf('best-before');
  expect(soon?.count).toBe(before + 1);
  expect(await foundBy(soon)).toContain(stale.id);
  // What is done about it is a change of many, proposed and seen before.
  const { body } = await call<{ rows: unknown[] }>('POST', '/edits/preview', {
    selection: { kind: 'items', ids: [stale.id] },
    steps: soon?.steps,
  });
  expect(JSON.stringify(body)).toContain('"after":"23.90"');
  const unsold = await countOf('unsold');
  await database()
    .update(item)
    .set({ createdAt: new Date(Date.now() - 300 * 86_400_000) })
    .where(eq(item.id, losing.id));
  expect(await countOf('unsold')).toBe(unsold + 1);
  expect((await needOf('losing'))?.atStake).toBeGreaterThanOrEqual(9_000);
}, 120_000);

test('what was sold twice and an account that is locked come first; what is put off comes last, with its why, and back', async () => {
  const shop = await accountOf('Lanesend');
  await database()
    .update(account)
    .set({ lockedUntil: new Date(Date.now() + 600_000) })
    .where(eq(account.id, shop));
  const key = `account-${shop}-locked`;
  await call('POST', '/needs/later', { need: key, days: 0 });
  const locked = await needOf(key);
  expect(locked).toMatchObject({ page: `/marketplaces/${shop}`, later: null });
  expect(locked?.says).toContain('locked');

  const { id, sku } = await readyItem({}, 1);
  const [hallowick, oakhand] = [await accountOf('Hallowick'), await accountOf('Oakhand')];
  await publishItems([id], [hallowick, oakhand]);
  for (const where of [hallowick, oakhand]) await comesTo(id, where, 'live');
  const before = await countOf('oversold');
  const [first] = await marketListings('hallowick', sku);
  const [second] = await marketListings('oakhand', sku);
  await Promise.all([
    control('hallowick', 'buy', { listing: first?.id, quantity: 1 }),
    control('oakhand', 'buy', { listing: second?.id, quantity: 1 }),
  ]);
  const over = await until(
    () => needOf('oversold'),
    (one) => (one?.count ?? 0) > before,
    60_000,
  );
  expect(over).toMatchObject({ isUrgent: true, page: '/sales?state=oversold' });
  expect((await needs())[0]?.isUrgent).toBe(true);

  const why = `they said Monday ${randomUUID().slice(0, 6)}`;
  expect((await call('POST', '/needs/later', { need: key, days: 3, why })).status).toBe(201);
  expect((await needs()).at(-1)).toMatchObject({ need: key, later: { why } });
  expect((await call('POST', '/needs/later', { need: key, days: 61 })).status).toBe(422);
  await call('POST', '/needs/later', { need: key, days: 0 });
  expect(await needOf(key)).toMatchObject({ later: null });
  // When its days are over it is there again.
  await call('POST', '/needs/later', { need: key, days: 1 });
  await database()
    .update(needLater)
    .set({ until: new Date(Date.now() - 1_000) })
    .where(eq(needLater.need, key));
  expect(await needOf(key)).toMatchObject({ later: null });
  await database().update(account).set({ lockedUntil: null }).where(eq(account.id, shop));
  expect(await needOf(key)).toBeUndefined();
}, 120_000);

test('what is brought in and waits for an answer is told, and leads to its pairs', async () => {
  const before = await countOf('bringing-in');
  const row = { title: 'waits', mode: 'at-once', prefer: {}, state: 'asking', chosen: 2, byName: 'A seller' } as const;
  const [{ insertId }] = await database()
    .insert(gathering)
    .values({ ...row, at: new Date() });
  try {
    const need = await needOf('bringing-in');
    expect(need).toMatchObject({ count: before + 1, isUrgent: false });
    expect(need?.page).toBe(before === 0 ? `/bring-in/${insertId}` : '/bring-in');
    await database().update(gathering).set({ state: 'done' }).where(eq(gathering.id, insertId));
    expect(await countOf('bringing-in')).toBe(before);
  } finally {
    await database().delete(gathering).where(eq(gathering.id, insertId));
  }
});

test('what is shown there otherwise counts as such also where it needs somebody besides', async () => {
  const shop = await accountOf('Shopfront');
  const { id } = await readyItem();
  await publishItems([id], [shop]);
  await comesTo(id, shop, 'live');
  const stage = async () => (await call<Record<string, number>>('GET', '/stages')).body.drift ?? 0;
  const before = [await countOf('differences'), await stage()];
  await database()
    .update(listing)
    .set({ problem: true, drifted: true })
    .where(and(eq(listing.itemId, id), eq(listing.accountId, shop)));
  expect([await countOf('differences'), await stage()]).toEqual(before.map((one) => one + 1));
  const { items } = (await call<{ items: { id: number }[] }>('GET', '/items?stage=drift&limit=200')).body;
  expect(items.map((one) => one.id)).toContain(id);
  await database()
    .update(listing)
    .set({ problem: false, drifted: false })
    .where(and(eq(listing.itemId, id), eq(listing.accountId, shop)));
});
