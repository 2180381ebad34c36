import { asc, eq, inArray } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { changeRecord, inbox, job, listing } from '../../../src/db/schema';
import { thinOld } from '../../../src/services/tasks/thin-old';
import { readyItem } from '../../support/items';
import { call } from '../../support/stack';

const db = database();
const account = 910_000_000 + process.pid;
const ago = (days: number) => new Date(Date.now() - days * 86_400_000);
afterAll(async () => {
  await db.delete(job).where(eq(job.accountId, account));
  await db.delete(listing).where(eq(listing.accountId, account));
  await db.delete(inbox).where(eq(inbox.accountId, account));
  await closeDatabase();
});

const request = { kind: 'update' as const, content: { title: 'x' }, fields: ['title'], photoIds: [], firstSentAt: '' };
async function finished(listingId: number, days: number): Promise<number> {
  const [{ insertId }] = await db.insert(job).values({
    listingId,
    accountId: account,
    priority: 7,
    state: 'done',
    outcome: 'changed',
    request,
    story: [{ at: '', text: 'sent' }],
    dueAt: ago(days),
    createdAt: ago(days),
    finishedAt: ago(days),
  });
  return insertId;
}

test('what is older than the settings say goes; what is younger, waits or is still needed stays', async () => {
  const { id: itemId } = await readyItem();
  const listingOf = async (remote: 'live' | 'maybe', more: number) =>
    (await db.insert(listing).values({ itemId, accountId: account + more, overrides: {}, wanted: 'live', remote }))[0]
      .insertId;
  const plain = await listingOf('live', 0);
  const open = await listingOf('maybe', 1);
  const ancient = await finished(plain, 800);
  const old = await finished(plain, 70);
  const young = await finished(plain, 50);
  const needed = await finished(open, 70);
  await thinOld(new Date(), () => false);
  const rows = await db
    .select()
    .from(job)
    .where(inArray(job.id, [ancient, old, young, needed]));
  const left = new Map(rows.map((row) => [row.id, row]));
  expect(left.has(ancient)).toBe(false);
  expect(left.get(old)).toMatchObject({ request: null, story: null, outcome: 'changed' });
  expect(left.get(young)?.request).toEqual(request);
  expect(left.get(needed)?.request).toEqual(request);
  await db.delete(listing).where(eq(listing.accountId, account + 1));
});

test('the oldest history goes first, in portions, and what is young stays', async () => {
  const oldest = await db.select().from(changeRecord).orderBy(asc(changeRecord.id)).limit(40);
  const ids = oldest.map((row) => row.id);
  const count = await db.$count(changeRecord);
  await db
    .update(changeRecord)
    .set({ at: ago(800) })
    .where(inArray(changeRecord.id, ids));
  try {
    expect((await thinOld(new Date(), () => false, 15)).changes).toBe(40);
    expect(await db.$count(changeRecord, inArray(changeRecord.id, ids))).toBe(0);
    expect(await db.$count(changeRecord)).toBeGreaterThanOrEqual(count - 40);
    expect((await thinOld(new Date(), () => false, 15)).changes).toBe(0);
  } finally {
    await db.delete(changeRecord).where(inArray(changeRecord.id, ids));
    await db.insert(changeRecord).values(oldest);
  }
});

test('how long things are kept is a setting with bounds', async () => {
  const { body } = await call<{ historyDays: number; requestDays: number }>('GET', '/settings');
  expect(body).toMatchObject({ historyDays: 730, requestDays: 60 });
  expect((await call('PUT', '/settings', { requestDays: 1 })).status).toBe(422);
  expect((await call('PUT', '/settings', { historyDays: 400 })).body).toMatchObject({ historyDays: 400 });
  expect((await call('PUT', '/settings', { historyDays: 730 })).body).toMatchObject({ historyDays: 730 });
});
