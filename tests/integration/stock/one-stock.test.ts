import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { item } from '../../../src/db/schema';
import { audit } from '../../../src/services/audit/audit';
import { publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

afterAll(closeDatabase);

const make = (quantity: number, part: Record<string, unknown> = {}) => readyItem(part, quantity);
const units = async (id: number) => (await sheet(id)).item.quantity;
const setParts = (id: number, parts: { item: number; pieces: number }[]) =>
  call<{ quantity: number; title: string }>('PUT', `/items/${id}/parts`, { parts });
const sell = (id: number, quantity = 1) => call('POST', `/items/${id}/sold`, { quantity, unitPrice: 100 });
const wholes = async (skus: string[]) =>
  ((await audit({ mend: false })).found.find((one) => one.id === 'wholes')?.named ?? []).filter((one) =>
    skus.some((sku) => one.text.includes(sku)),
  );

/** An outfit of two tray sets and a tank; a tray set is of three trays and a box of six clips. */
async function outfit() {
  const [tray, tank, clip] = [await make(20), await make(5), await make(60)];
  const [box, trays, whole] = [await make(0), await make(0), await make(0)];
  expect((await setParts(box.id, [{ item: clip.id, pieces: 6 }])).body.quantity).toBe(10);
  const within = [
    { item: tray.id, pieces: 3 },
    { item: box.id, pieces: 1 },
  ];
  expect((await setParts(trays.id, within)).body.quantity).toBe(6);
  const outer = [
    { item: trays.id, pieces: 2 },
    { item: tank.id, pieces: 1 },
  ];
  expect((await setParts(whole.id, outer)).body.quantity).toBe(3);
  const all = [whole, trays, tray, tank, box, clip];
  const now = () => Promise.all(all.map((one) => units(one.id)));
  return { whole, trays, tray, tank, box, clip, all, now };
}

test('a whole that is sold takes its parts off, a part that is sold lowers the wholes: three levels, both ways', async () => {
  const { whole, trays, tray, clip, now, all } = await outfit();
  expect(await now()).toEqual([3, 6, 20, 5, 10, 60]);
  await sell(whole.id);
  expect(await now()).toEqual([2, 4, 14, 4, 8, 48]);
  await sell(tray.id, 3);
  expect(await now()).toEqual([1, 3, 11, 4, 8, 48]);
  await sell(trays.id);
  expect(await now()).toEqual([1, 2, 8, 4, 7, 42]);
  // What is counted anew is counted of the parts, whichever is written.
  await call('POST', `/items/${clip.id}/stock`, { how: 'set', units: 6 });
  expect(await now()).toEqual([0, 1, 8, 4, 1, 6]);
  await call('POST', `/items/${trays.id}/stock`, { how: 'add', units: 2 });
  expect(await now()).toEqual([1, 3, 14, 4, 3, 18]);
  expect(await wholes(all.map((one) => one.sku))).toEqual([]);
  // The audit looks: a number that is not what the parts allow is named.
  await database().update(item).set({ quantity: 7 }).where(eq(item.id, whole.id));
  expect((await wholes([whole.sku])).map((one) => one.text)).toEqual([`${whole.sku}: 7 here, 1 by the parts`]);
  await database().update(item).set({ quantity: 1 }).where(eq(item.id, whole.id));
  const refused = await sell(whole.id, 2);
  expect(refused.status).toBe(422);
});

test('a sale on a marketplace ends the wholes that cannot be any more, in the same breath; called off, all is back', async () => {
  const shop = await accountOf('Shopfront');
  const { whole, tank, now, all } = await outfit();
  await publishItems([whole.id, tank.id], [shop]);
  await until(
    () => Promise.all([whole, tank].map((one) => stateOn(one.id, shop))),
    (states) => states.every((state) => state === 'live'),
  );
  const offered = async (sku: string) => (await marketListings('shopfront', sku))[0]?.summary.quantity;
  await until(
    () => offered(whole.sku),
    (count) => count === 3,
  );
  const [listing] = await marketListings('shopfront', tank.sku);
  await control('shopfront', 'buy', { listing: listing?.id, quantity: 4 });
  await until(now, ([wholes, , , tanks]) => tanks === 1 && wholes === 1);
  await until(
    () => offered(whole.sku),
    (count) => count === 1,
  );
  const [last] = await marketListings('shopfront', whole.sku);
  await control('shopfront', 'buy', { listing: last?.id });
  await until(now, ([wholes]) => wholes === 0);
  expect(await now()).toEqual([0, 4, 14, 0, 8, 48]);
  await until(
    () => marketListings('shopfront', tank.sku),
    ([one]) => one?.state === 'ended' || one?.state === 'sold',
  );
  const { body } = await call<{ sales: { id: number; sku: string }[] }>('GET', '/sales?limit=20');
  const sale = body.sales.find((one) => one.sku === whole.sku);
  await call('POST', `/sales/${sale?.id}/cancel`, {});
  await until(now, ([wholes]) => wholes === 1);
  expect(await now()).toEqual([1, 6, 20, 1, 10, 60]);
  // What had ended with it is offered again, the parts as well.
  await until(
    () => Promise.all([whole, tank].map((one) => stateOn(one.id, shop))),
    (states) => states.every((state) => state === 'live'),
  );
  await until(
    () => offered(tank.sku),
    (count) => count === 1,
  );
  expect(await wholes(all.map((one) => one.sku))).toEqual([]);
});

test('many sales of wholes and parts at once: every unit is taken off once, and wholes are what the parts allow', async () => {
  const { whole, trays, tray, clip, now, all } = await outfit();
  const deeds = [whole, tray, trays, clip, tray, whole, clip, trays].map((one) => sell(one.id));
  const done = (await Promise.all(deeds)).map((one) => one.status);
  const went = (index: number) => (done[index] === 201 || done[index] === 200 ? 1 : 0);
  const wholesSold = went(0) + went(5);
  const traySets = went(2) + went(7) + 2 * wholesSold;
  const [, , trayUnits, tankUnits, , clipUnits] = await now();
  expect(tankUnits).toBe(5 - wholesSold);
  expect(trayUnits).toBe(20 - went(1) - went(4) - 3 * traySets);
  expect(clipUnits).toBe(60 - went(3) - went(6) - 6 * traySets);
  expect(await wholes(all.map((one) => one.sku))).toEqual([]);
});

test('many are changed in one go, and it is taken back: wholes follow both ways', async () => {
  const { whole, tank, tray, now } = await outfit();
  const change = (ids: number[], by: number) =>
    call<{ runId: number }>('POST', '/edits', {
      selection: { kind: 'items', ids },
      steps: [{ field: 'quantity', do: { verb: 'add', by } }],
      send: false,
    });
  const { body } = await change([tank.id, tray.id], -2);
  await until(now, ([wholes]) => wholes === 3);
  expect(await now()).toEqual([3, 6, 18, 3, 10, 60]);
  await call('POST', `/runs/${body.runId}/undo`, {});
  await until(now, ([, , , tanks]) => tanks === 5);
  const set = await change([whole.id], -1);
  await until(now, ([wholes]) => wholes === 2);
  expect(await now()).toEqual([2, 4, 14, 4, 8, 48]);
  await call('POST', `/runs/${set.body.runId}/undo`, {});
  await until(now, ([wholes]) => wholes === 3);
  expect(await now()).toEqual([3, 6, 20, 5, 10, 60]);
  // Of both in one go the part counts.
  await change([whole.id, tank.id], -1);
  await until(now, ([, , , tanks]) => tanks === 4);
  expect(await now()).toEqual([3, 6, 20, 4, 10, 60]);
});

test('a set within itself, too many levels, unknown things, and what has variations are refused', async () => {
  const { whole, trays, clip, box } = await outfit();
  expect((await setParts(clip.id, [{ item: whole.id, pieces: 1 }])).body.title).toContain('lie within itself');
  const over = await make(0);
  expect((await setParts(over.id, [{ item: whole.id, pieces: 1 }])).body.title).toContain('3 levels deep');
  expect((await setParts(over.id, [{ item: 999_999_999, pieces: 1 }])).status).toBe(404);
  const twice = [
    { item: box.id, pieces: 1 },
    { item: box.id, pieces: 2 },
  ];
  expect((await setParts(over.id, twice)).body.title).toContain('named twice');
  // A part that is put away makes no set; taken apart for good, nothing is left of the whole.
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [box.id] },
    steps: [{ field: 'standing', do: { verb: 'set', value: 'archived' } }],
    send: false,
  });
  await until(
    () => units(trays.id),
    (left) => left === 0,
  );
  expect((await setParts(trays.id, [])).body.quantity).toBe(0);
  expect(await units(whole.id)).toBe(0);
});
