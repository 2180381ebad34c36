import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { closeDatabase } from '../../../src/db/client';
import type { ArtworkView } from '../../../src/services/artwork/find-artworks';
import { bringArtwork, piece, printsFor, readyArtwork, strokes } from '../../support/artwork';
import { comesTo, publishItems, sheet, stateOn } from '../../support/items';
import { accountOf, aDayLater, call, control, until } from '../../support/stack';

let template = 0;
afterAll(async () => {
  if (template) await call('DELETE', `/templates/${template}`);
  await closeDatabase();
});

type Job = { state: string; message: string | null; dueAt: string };
const jobOf = async (id: number): Promise<Job | undefined> =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?item=${id}`)).body.jobs[0];
const openOn = async (account: number): Promise<Job[]> =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?account=${account}&state=waiting`)).body.jobs;
const liveOf = async (ids: readonly number[], account: number): Promise<number[]> => {
  const states = await Promise.all(ids.map((id) => stateOn(id, account)));
  return ids.filter((_id, at) => states[at] === 'live');
};
test('24 go over three of its days: eight a day, a lock is waited for, one is too small and mended by a larger file', async () => {
  const wallfolk = await accountOf('Wallfolk');
  const whom = `Swimmers ${randomUUID().slice(0, 8)}`;
  template = (await printsFor(whom, [wallfolk], { pieces: [piece('Poster A3', ['White', 'Natural'], 2_400)] })).id;
  // What others have left to be sent goes first, and the day that it goes on is over.
  for (let left = await openOn(wallfolk); left.length > 0; ) {
    const { length } = left;
    await aDayLater();
    left = await until(
      () => openOn(wallfolk),
      (open) => open.length <= Math.max(0, length - 8),
      90_000,
    );
  }
  await aDayLater();
  const small = strokes('#202020', 1_200);
  const ids = [await readyArtwork(whom, await sharp(small).png().toBuffer())];
  while (ids.length < 24) ids.push(await readyArtwork(whom));
  const [first = 0, ...others] = ids;
  type Line = { create: number; notReady: number; days: { on: string; count: number }[] };
  const planned = async (some: number[]) =>
    (
      await call<{ accounts: Line[] }>('POST', '/publish/plan', {
        selection: { kind: 'items', ids: some },
        accounts: [wallfolk],
      })
    ).body.accounts[0];
  // Their clock is heard with the next asking for orders.
  const plan = await until(
    () => planned(ids),
    (line) => line?.days[0]?.count === 8,
  );
  expect(plan).toMatchObject({ create: 23, notReady: 1 });
  expect(plan?.days.map((one) => one.count)).toEqual([8, 8, 7]);
  await publishItems(others, [wallfolk]);
  expect(
    await until(
      () => liveOf(others, wallfolk),
      (live) => live.length === 8,
      120_000,
    ),
  ).toHaveLength(8);
  const waiting = await until(
    async () => (await Promise.all(others.map(jobOf))).filter((job) => job?.state === 'waiting'),
    (all) => all.length === 15 && all.every((job) => job?.message?.includes('8 new listings a day are reached')),
  );
  expect(waiting).toHaveLength(15);
  // The second day begins, and the account is locked for a while.
  await aDayLater();
  await control('wallfolk', 'lock', { seller: 'grainhouse', minutes: 1.5 });
  type Account = { id: number; lockedUntil: string | null };
  await until(
    async () => (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts,
    (all) => all.some((one) => one.id === wallfolk && one.lockedUntil !== null),
    60_000,
  );
  expect(
    await until(
      () => liveOf(others, wallfolk),
      (live) => live.length === 16,
      180_000,
    ),
  ).toHaveLength(16);
  // Too small for a poster: nothing of it goes out, until a larger file takes its place.
  await publishItems([first], [wallfolk]);
  const view = async (id: number) =>
    (await call<{ artworks: ArtworkView[] }>('GET', '/artworks?limit=100')).body.artworks.find(
      (one) => one.itemId === id,
    );
  expect((await sheet(first)).columns.find((one) => one.accountId === wallfolk)?.ready).toBe(false);
  const larger = await bringArtwork(await sharp(small, { density: 216 }).png().toBuffer(), 'larger.png');
  expect(larger.body).toMatchObject({ known: false, twin: first });
  expect((await view(larger.body.itemId))?.twin).toMatchObject({ itemId: first, width: 1_200 });
  expect((await call('POST', `/artworks/${larger.body.itemId}/twin`, { how: 'take' })).body).toEqual({ itemId: first });
  expect(await view(first)).toMatchObject({ width: 3_600, twin: null });
  expect(await view(larger.body.itemId)).toBeUndefined();
  await publishItems([first], [wallfolk]);
  await aDayLater();
  expect(
    await until(
      () => liveOf(ids, wallfolk),
      (live) => live.length === 24,
      180_000,
    ),
  ).toHaveLength(24);
  expect(await comesTo(first, wallfolk, 'live')).toMatchObject({ state: 'live' });
}, 600_000);
