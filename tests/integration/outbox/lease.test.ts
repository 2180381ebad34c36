import { eq } from 'drizzle-orm';
import { NettingError } from '../../../src/core/errors';
import { priorities } from '../../../src/core/sync';
import { closeDatabase, database } from '../../../src/db/client';
import { job, listing } from '../../../src/db/schema';
import { LostLease } from '../../../src/markets';
import { claimOthers } from '../../../src/worker/claim';
import { reclaimJobs } from '../../../src/worker/lanes';
import { finishFailed } from '../../../src/worker/outcome/finish-failed';
import { finishNothing } from '../../../src/worker/outcome/finish-nothing';
import { freeze, type Lane } from '../../../src/worker/prepare';
import { readyItem } from '../../support/items';

const db = database();
/** An account that no worker sends for, so that the jobs are the test's alone. */
const account = 900_000_000 + process.pid;
const jobNow = async (id: number) => (await db.select().from(job).where(eq(job.id, id)))[0];

async function waitingJob(): Promise<{ id: number; itemId: number; listingId: number }> {
  const { id: itemId } = await readyItem();
  const [{ insertId: listingId }] = await db
    .insert(listing)
    .values({ itemId, accountId: account, overrides: {}, wanted: 'live', busy: true });
  const [{ insertId: id }] = await db.insert(job).values({
    listingId,
    liveListing: listingId,
    accountId: account,
    priority: priorities.create,
    dueAt: new Date(Date.now() - 1_000),
    createdAt: new Date(),
  });
  return { id, itemId, listingId };
}
const take = async (worker: string) => {
  const [row] = await claimOthers(account, worker, 10);
  if (!row) throw new Error('nothing was taken');
  return row;
};

afterAll(async () => {
  await db.delete(job).where(eq(job.accountId, account));
  await db.delete(listing).where(eq(listing.accountId, account));
  await closeDatabase();
});

test('what an earlier taker finds out is not kept, not even of the same worker', async () => {
  const { id, itemId } = await waitingJob();
  for (const later of ['two', 'one']) {
    const stale = await take('one');
    await reclaimJobs([stale], true);
    const now = await take(later);
    expect(now.lease).toBe(stale.lease + 1);
    await finishFailed(stale, 'one', new NettingError('market-refused', 'from the past'));
    await finishNothing(stale, 'one', itemId, 'from the past');
    const lane = { worker: 'one' } as Lane; // nothing else of it is asked for
    const request = { kind: 'create' as const, content: {}, fields: [], photoIds: [], firstSentAt: '' };
    await expect(freeze(lane, stale, request)).rejects.toThrow(LostLease);
    expect(await jobNow(id)).toMatchObject({ state: 'running', leaseOwner: later, message: null, request: null });
    // One that was taken again since it was read stays where it is.
    expect(await reclaimJobs([stale], true)).toBe(0);
    await reclaimJobs([now], true);
  }
});

test('a refusal settles a creation that was not answered before: what is mended is sent anew, not repeated', async () => {
  await db.delete(job).where(eq(job.accountId, account));
  const { id, listingId } = await waitingJob();
  const row = await take('one');
  const lane = { worker: 'one' } as Lane; // nothing else of it is asked for
  const firstSentAt = new Date().toISOString();
  await freeze(lane, row, { kind: 'create', content: { sku: 'x' }, fields: [], photoIds: [], firstSentAt });
  await finishFailed(row, 'one', new NettingError('market-refused', 'The title is too long'));
  expect(await jobNow(id)).toMatchObject({ state: 'failed', request: null });
  expect((await db.select().from(listing).where(eq(listing.id, listingId)))[0]?.remote).toBe('none');
});

test('a creation of a worker that is gone is not sent again before its longest request is over', async () => {
  await db.delete(job).where(eq(job.accountId, account));
  const { id, listingId } = await waitingJob();
  const row = await take('one');
  const lane = { worker: 'one' } as Lane; // nothing else of it is asked for
  const firstSentAt = new Date().toISOString();
  await freeze(lane, row, { kind: 'create', content: { sku: 'x' }, fields: [], photoIds: [], firstSentAt });
  const [held] = await db.select().from(listing).where(eq(listing.id, listingId));
  expect(held?.remote).toBe('maybe');
  await reclaimJobs([row], false);
  const now = await jobNow(id);
  expect(now?.state).toBe('waiting');
  expect((now?.dueAt.getTime() ?? 0) - Date.now()).toBeGreaterThan(19_000);
  expect(Date.parse(now?.request?.openSince ?? '') - Date.now()).toBeGreaterThan(19_000);
  expect(await claimOthers(account, 'two', 10)).toHaveLength(0);
});
