import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { closeDatabase } from '../../../src/db/client';
import type { ArtworkView } from '../../../src/services/artwork/find-artworks';
import { bringArtwork, piece, printsFor, readyArtwork, strokes } from '../../support/artwork';
import { publishItems, sheet, stateOn } from '../../support/items';
import {
  accountOf,
  aDayLater,
  call,
  control,
  type MarketListing,
  marketListings,
  stack,
  until,
} from '../../support/stack';

let template = 0;
afterEach(async () => {
  if (template) await call('DELETE', `/templates/${template}`);
  template = 0;
  await control('wallfolk', 'webhooks', {});
  await control('wallfolk', 'rule', { path: 'limits.artworkSide', value: 2_400 });
  await control('wallfolk', 'rule', { path: 'lists.products.0.area.heightPx', value: 4_961 });
  await control('wallfolk', 'rule', { path: 'lists.products.0.area.heightMm', value: 420 });
});
afterAll(closeDatabase);

type Job = { state: string; message: string | null; dueAt: string };
const jobOf = async (id: number): Promise<Job | undefined> =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?item=${id}`)).body.jobs[0];
const openOn = async (account: number): Promise<Job[]> =>
  (await call<{ jobs: Job[] }>('GET', `/jobs?account=${account}&state=waiting`)).body.jobs;
/** Those of these items that Wallfolk shows, by their stock numbers. */
async function shownThere(skus: ReadonlySet<string>): Promise<MarketListing[]> {
  const all = await marketListings('wallfolk');
  return all.filter((one) => one.state === 'live' && skus.has(one.summary.reference));
}
/** A drawing that covers its whole area, no other like it. */
const covering = (side: number): Buffer =>
  Buffer.from(
    strokes('#202020', side)
      .toString()
      .replace('<polyline', `<rect width="${side}" height="${side}" fill="#e8d9b0"/><polyline`),
  );
const png = (svg: Buffer, density = 72): Promise<Buffer> =>
  sharp(svg, { density, limitInputPixels: false }).png().toBuffer();
/** Height by width of the picture that a listing has there. */
async function shapeOf({ summary }: MarketListing): Promise<number> {
  const answer = await fetch(`${stack.markets}/wallfolk/photo/${summary.photos[0]}.jpg`);
  const { width, height } = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
  return height / width;
}

test('24 go over three of its days: eight a day, one is refused for its size and mended by a larger file, areas change meanwhile, a lock is waited for', async () => {
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
  const small = covering(1_700);
  const ids = [await readyArtwork(whom, await png(small))];
  while (ids.length < 24) ids.push(await readyArtwork(whom, await png(covering(3_000))));
  const skus = new Set<string>();
  for (const id of ids) skus.add((await sheet(id)).item.sku);
  const [first = 0, ...others] = ids;
  type Line = { create: number; notReady: number; days: { on: string; count: number }[] };
  // Their clock is heard with the next asking for orders.
  const plan = await until(
    async () =>
      (
        await call<{ accounts: Line[] }>('POST', '/publish/plan', {
          selection: { kind: 'items', ids },
          accounts: [wallfolk],
        })
      ).body.accounts[0],
    (line) => line?.days[0]?.count === 8,
    90_000,
  );
  expect(plan).toMatchObject({ create: 24, notReady: 0 });
  expect(plan?.days.map((one) => one.count)).toEqual([8, 8, 8]);
  // They want larger pictures from now on, and it is not heard yet: one is refused by them, in their words.
  await control('wallfolk', 'webhooks', { delayMs: 900_000 });
  await control('wallfolk', 'rule', { path: 'limits.artworkSide', value: 3_000 });
  await publishItems([first], [wallfolk]);
  const refused = await until(
    () => jobOf(first),
    (job) => job?.state === 'failed',
    90_000,
  );
  expect(refused?.message).toContain('must have 3000 pixels on its longest side');
  await publishItems(others, [wallfolk]);
  const day1 = await until(
    () => shownThere(skus),
    (shown) => shown.length === 8,
    240_000,
  );
  const waiting = await until(
    async () => (await Promise.all(others.map(jobOf))).filter((job) => job?.state === 'waiting'),
    (all) => all.length === 15 && all.every((job) => job?.message?.includes('8 new listings a day are reached')),
  );
  expect(waiting).toHaveLength(15);
  // While fifteen wait, the area that is printed on becomes another, and now it is heard.
  await control('wallfolk', 'webhooks', {});
  await control('wallfolk', 'rule', { path: 'lists.products.0.area.heightPx', value: 5_197 });
  await control('wallfolk', 'rule', { path: 'lists.products.0.area.heightMm', value: 440 });
  await until(
    () => stateOn(day1[0] ? (ids.find((_id, at) => [...skus][at] === day1[0]?.summary.reference) ?? 0) : 0, wallfolk),
    (state) => state === 'changed',
    60_000,
  );
  // The second day begins, and the account is locked for a while.
  await aDayLater();
  await control('wallfolk', 'lock', { seller: 'grainhouse', minutes: 3 });
  type Account = { id: number; lockedUntil: string | null };
  await until(
    async () => (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts,
    (all) => all.some((one) => one.id === wallfolk && one.lockedUntil !== null),
    170_000,
  );
  const day2 = await until(
    () => shownThere(skus),
    (shown) => shown.length === 16,
    330_000,
  );
  const before = new Set(day1.map((one) => one.id));
  const [old, fresh] = [day2.find((one) => before.has(one.id)), day2.find((one) => !before.has(one.id))];
  if (!old || !fresh) throw new Error('one of each day is missing');
  expect(await shapeOf(old)).toBeCloseTo(426 / 303, 2);
  expect(await shapeOf(fresh)).toBeCloseTo(446 / 303, 2);
  // The one that was refused: a larger file of the same picture takes its place.
  const view = async (id: number) =>
    (await call<{ artworks: ArtworkView[] }>('GET', '/artworks?limit=100')).body.artworks.find(
      (one) => one.itemId === id,
    );
  const larger = await bringArtwork(await png(small, 144), 'larger.png');
  expect(larger.body).toMatchObject({ known: false, twin: first });
  expect((await view(larger.body.itemId))?.twin).toMatchObject({ itemId: first, width: 1_700 });
  expect((await call('POST', `/artworks/${larger.body.itemId}/twin`, { how: 'take' })).body).toEqual({ itemId: first });
  expect(await view(first)).toMatchObject({ width: 3_400, twin: null });
  expect(await view(larger.body.itemId)).toBeUndefined();
  await publishItems([first], [wallfolk]);
  await aDayLater();
  const day3 = await until(
    () => shownThere(skus),
    (shown) => shown.length === 24,
    240_000,
  );
  expect(new Set(day3.map((one) => one.summary.reference))).toEqual(skus);
}, 900_000);
