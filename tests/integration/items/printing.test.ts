import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { listing, printable } from '../../../src/db/schema';
import { printKey } from '../../../src/photos/print-store';
import type { ArtworkEarning } from '../../../src/services/artwork/find-earnings';
import type { SightsOfArtwork } from '../../../src/services/artwork/find-sights';
import { forgetPrints } from '../../../src/services/tasks/forget-prints';
import { drawing, piece, printsFor, readyArtwork } from '../../support/artwork';
import { comesTo, publishItems, readyItem, sheet, upload } from '../../support/items';
import { accountOf, aDayLater, call, control, marketListings, stack, until } from '../../support/stack';

let template = 0;
let [wallfolk, id] = [0, 0];
const whom = `Divers ${randomUUID().slice(0, 8)}`;
beforeAll(async () => {
  wallfolk = await accountOf('Wallfolk');
  template = (
    await printsFor(whom, [wallfolk], {
      pieces: [piece('Mug', ['White'], 1_400), piece('Tote bag', ['White', 'Natural'], 1_900)],
    })
  ).id;
  id = await readyArtwork(whom);
});
afterAll(async () => {
  await call('DELETE', `/templates/${template}`);
  await closeDatabase();
});

type Task = { id: number; kind: string; state: string; message: string | null };
const fileOf = (product: string) =>
  fetch(`${stack.base}/api/v1/artworks/${id}/print?account=${wallfolk}&product=${encodeURIComponent(product)}`, {
    headers: { authorization: `Bearer ${stack.token}` },
  });

test('printables are made in a task, once; the same to the byte when they are made anew', async () => {
  const first = Buffer.from(await (await fileOf('Mug')).arrayBuffer());
  const run = async (): Promise<string> => {
    const { taskId } = (await call<{ taskId: number }>('POST', '/artworks/prints', {})).body;
    const task = await until(
      async () => (await call<{ tasks: Task[] }>('GET', '/tasks')).body.tasks.find((one) => one.id === taskId),
      (one) => one?.state === 'done',
      240_000,
    );
    return task?.message ?? '';
  };
  expect(Number.parseInt(await run(), 10)).toBeGreaterThanOrEqual(2);
  expect(await run()).toMatch(/^0 made; [1-9][0-9,]* there already$/);
  expect(Buffer.from(await (await fileOf('Mug')).arrayBuffer()).equals(first)).toBe(true);
  expect((await fileOf('Flag')).status).toBe(404);
}, 300_000);

test('printables of a month ago go; what is needed is made anew', async () => {
  const before = await database().select().from(printable);
  expect(before.length).toBeGreaterThan(0);
  const [one] = before;
  await database()
    .update(printable)
    .set({ at: new Date(Date.now() - 31 * 86_400_000) })
    .where(eq(printable.key, one?.key ?? ''));
  await forgetPrints(new Date(), () => false);
  expect(await database().select().from(printable)).toHaveLength(before.length - 1);
  expect((await fileOf('Mug')).status).toBe(200);
  expect(printKey('a')).not.toBe(printKey('b'));
});

test('what is sold is made, and does not become fewer; it is known which picture on which product earned', async () => {
  await aDayLater();
  await publishItems([id], [wallfolk]);
  expect(await comesTo(id, wallfolk, 'live', 120_000)).toMatchObject({ state: 'live' });
  const { sku, quantity } = (await sheet(id)).item;
  const [there] = await marketListings('wallfolk', sku);
  await control('wallfolk', 'buy', { listing: there?.id, quantity: 2, variant: 'Tote bag / Natural' });
  const earned = await until(
    async () =>
      (await call<{ earnings: ArtworkEarning[] }>('GET', '/artworks/earnings?days=30')).body.earnings.filter(
        (one) => one.itemId === id,
      ),
    (all) => all.length > 0,
    60_000,
  );
  // Two bags at 19.00, of which 9.40 each is what making them costs.
  expect(earned).toEqual([
    expect.objectContaining({ product: 'Tote bag', account: 'Wallfolk', pieces: 2, unknown: 0 }),
  ]);
  expect((await sheet(id)).item.quantity).toBe(quantity);
  // They count down themselves: what is offered is told anew at once, not when somebody audits.
  await until(
    async () =>
      database()
        .select({ offered: listing.sentQuantity, wanted: listing.wantedQuantity })
        .from(listing)
        .where(and(eq(listing.itemId, id), eq(listing.accountId, wallfolk))),
    ([one]) => one !== undefined && one.offered === one.wanted,
    30_000,
  );
}, 240_000);

test('a verdict and a placing are fields of the item: in its history, undone by its own way', async () => {
  await call('PUT', `/artworks/${id}/looks`, { looks: [{ product: 'Mug', ground: 'White', verdict: 'off' }] });
  await call('PUT', `/artworks/${id}/placing`, { product: 'Tote bag', placing: { scale: 0.5 } });
  const sights = async () =>
    (await call<{ artworks: SightsOfArtwork[] }>('GET', '/artworks/sights?limit=100')).body.artworks.find(
      (one) => one.itemId === id,
    )?.sights ?? [];
  const bag = (await sights()).find((one) => one.product === 'Tote bag');
  expect(bag).toMatchObject({ isByHand: true, placing: { scale: 0.5 } });
  expect((await sights()).find((one) => one.product === 'Mug')).toMatchObject({ verdict: 'off', isOffered: false });
  type Entry = { field: string };
  const { body } = await call<{ entries?: Entry[]; changes?: Entry[] }>('GET', `/items/${id}/history`);
  expect(JSON.stringify(body)).toContain('placings');
  expect(JSON.stringify(body)).toContain('looks');
  expect((await call('PUT', `/artworks/${id}/placing`, { placing: { scale: 7 } })).status).toBe(422);
  expect((await call('PUT', '/artworks/1/placing', { placing: null })).status).toBe(404);
});

test('the same picture as a photo of a framed piece makes that no print: it is one piece, and goes when it is sold', async () => {
  const picture = await drawing('#303030');
  const art = await readyArtwork(whom, picture);
  const framed = await readyItem({ title: 'Framed drawing' }, 3);
  expect((await upload(framed.id, picture)).status).toBe(201);
  const hash = (await sheet(art)).item.photos[0]?.hash;
  expect((await sheet(framed.id)).item.photos.map((one) => one.hash)).toContain(hash);
  await call('PUT', `/items/${framed.id}/photos`, { photos: [hash] });
  await call('POST', `/items/${framed.id}/sold`, { quantity: 1, unitPrice: 9_000 });
  expect((await sheet(framed.id)).item.quantity).toBe(2);
});

test('a price that is changed for many reaches the prints that follow it', async () => {
  const walker = await readyArtwork(whom);
  const { id: other } = await printsFor(`${whom} again`, [wallfolk], {
    pieces: [piece('Poster A3', ['White'])],
  });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [walker] },
    steps: [
      { field: 'attributes.Audience', do: { verb: 'set', value: `${whom} again` } },
      { field: 'price', do: { verb: 'set', value: 4_400 } },
    ],
    send: false,
  });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [walker] },
    steps: [{ field: 'price', do: { verb: 'set', value: 5_500 } }],
    send: false,
  });
  const { accounts } = (
    await call<{ accounts: { accountId: number; values: { field: string; value: unknown }[] }[] }>(
      'GET',
      `/items/${walker}/preview`,
    )
  ).body;
  const there = accounts.find((one) => one.accountId === wallfolk)?.values.find((one) => one.field === 'variations');
  expect(there?.value).toMatchObject({ rows: [{ values: ['Poster A3', 'White'], price: 5_500 }] });
  const [row] = await database()
    .select()
    .from(listing)
    .where(and(eq(listing.itemId, walker), eq(listing.accountId, wallfolk)));
  expect(row?.wantedPrice).toBe(5_500);
  await call('DELETE', `/templates/${other}`);
});
