import { closeDatabase } from '../../../src/db/client';
import { kitOf, lotAccount, lotsIn, newKit, put, setLots } from '../../support/kits';
import { call } from '../../support/stack';

afterAll(closeDatabase);

/** An outfit of the catalogue, with a set within it. */
const entry = 'LB4032';

test('three outfits of the catalogue become lots: equal entries joined, spares with them, sets within opened', async () => {
  const account = await lotAccount();
  const id = await newKit({ account, totalCost: 12_000 });
  const without = await put(id, { entry }, { times: 3, with: [] });
  expect(without.body).toMatchObject({ added: 0, joined: expect.any(Array) });
  const lots = await lotsIn(id);
  expect(lots.length).toBe(without.body.made);
  expect(lots.length).toBeGreaterThan(45);
  expect(lots.every((lot) => lot.quantity % 3 === 0)).toBe(true);
  // The three trays of the set within are with the trays that lie in the box by themselves.
  const tray = lots.find((lot) => lot.name.endsWith('Tray 18 × 24') && lot.finish === 'plain');
  expect(tray?.from.map((one) => one.within.length)).toEqual([1, 2]);
  expect(lots.some((lot) => lot.name.endsWith('Tray set'))).toBe(false);

  // Two more with their spares join what is there.
  const more = await put(id, { entry }, { times: 2 });
  expect(more.body.made).toBe(0);
  expect(more.body.added).toBe(lots.length);
  const now = await lotsIn(id);
  const pieces = now.reduce((sum, lot) => sum + lot.quantity, 0);
  expect((await kitOf(id)).totals).toMatchObject({ lots: lots.length, pieces, unpriced: lots.length, ready: 0 });
  expect(pieces).toBe(without.body.pieces + more.body.pieces);
  const clip = now.find((lot) => lot.name.endsWith('Film clip') && lot.from.some((one) => one.kind === 'spare'));
  expect(clip?.from.map((one) => one.kind)).toEqual(['part', 'part', 'spare']);

  // One of the joined taken apart again is a lot of its own; the pieces stay the same.
  const apart = await call<{ lot: number }>('POST', `/kits/${id}/apart`, { how: 'joined', lot: clip?.id, at: 2 });
  const after = await lotsIn(id);
  expect(after.length).toBe(now.length + 1);
  expect(after.find((lot) => lot.id === apart.body.lot)).toMatchObject({
    quantity: clip?.from[2]?.quantity,
    from: [{ kind: 'spare' }],
  });
  expect(after.reduce((sum, lot) => sum + lot.quantity, 0)).toBe(pieces);
});

test('two people at the same lots: who comes later is told, and nothing is overwritten', async () => {
  const id = await newKit();
  await put(id, { text: '2 x tray\n4 x clip' });
  const [lot] = await lotsIn(id);
  const write = (price: number) =>
    call<{ changed: unknown[]; refused: { why: string }[] }>('PATCH', `/kits/${id}/lots`, {
      lots: [{ id: lot?.id, baseVersion: lot?.version, set: { price } }],
    });
  const both = (await Promise.all([write(500), write(600)])).map((one) => one.body);
  expect(both.map((one) => one.changed.length).sort()).toEqual([0, 1]);
  expect(both.flatMap((one) => one.refused)[0]?.why).toContain('meanwhile');
});

test('what cannot be meant is said at its place: vague numbers, things that are no set, a closed list', async () => {
  const id = await newKit({ account: await lotAccount() });
  expect((await put(id, { text: '2 x tray\nabout ten x bottle' })).body).toMatchObject({
    title: expect.stringContaining('Line 2, “about ten x bottle”'),
    field: 'text',
  });
  expect(await lotsIn(id)).toEqual([]);
  expect((await put(id, { entry: 'LB9001' })).body.title).toContain('it is no set');
  expect((await put(id, { text: 'leaflet (paper)' })).body.title).toBe('Nothing of it counts');
  expect((await put(id, { text: '100,000 x pin' }, { times: 11 })).body.field).toBe('times');
  expect((await put(await newKit(), { entry: 'LB4031' })).body.title).toContain('no catalogue');
  const { version } = await kitOf(id);
  await call('PATCH', `/kits/${id}`, { baseVersion: version, state: 'closed' });
  expect((await put(id, { text: '2 x tray' })).body.title).toContain('is closed');
  expect((await call('POST', `/kits/${id}/stock`, {})).status).toBe(409);
});

test('a file with numbers of the catalogue: names come from it, former numbers are followed and said, unknown ones refused', async () => {
  const id = await newKit({ account: await lotAccount() });
  const head = 'entry;colour;pieces;condition;price;drawer';
  const unknown = await put(id, { file: `${head}\nLB9004;plain;2;good;4.50;A1\nLB1;plain;1;;;\nXX;plain;1;;;` });
  expect(unknown.body.title).toContain('has no entry LB1, and 1 more');
  expect((await put(id, { file: `${head}\nLB9004;plain;about ten;good;;` })).body.title).toContain('Line 2');
  expect((await put(id, { file: `${head}\nLB9004;plain;2;good;4 XYZ;` })).body.title).toContain(
    'no exchange rate to XYZ',
  );
  expect(await lotsIn(id)).toEqual([]);
  const { body } = await put(id, { file: `${head}\nLB9004;plain;2;very good;4.50;A1\nLB7001;black;1;;;` });
  expect(body).toMatchObject({ made: 2, pieces: 3, renumbered: [{ was: 'LB7001', now: 'LB9001' }] });
  expect(await lotsIn(id)).toMatchObject([
    { entry: 'LB9004', finish: 'plain', quantity: 2, condition: 'very-good', price: 450, isKept: true, place: 'A1' },
    { entry: 'LB9001', name: expect.stringContaining('Developing tank'), condition: 'good', price: null },
  ]);
  // The same once more into another list, from the first.
  const other = await newKit();
  expect((await put(other, { kit: id }, { times: 2 })).body).toMatchObject({ made: 2, pieces: 6 });
  const set = await put(id, { entry: 'LB2032' });
  expect(set.body.renumbered).toContainEqual({ was: 'LB2032', now: 'LB4032' });
});

test('pieces that are missing are fewer; damaged ones are a lot of their own in their condition', async () => {
  const id = await newKit();
  await put(id, { text: '6 x tray\n4 x clip' });
  const [tray] = await lotsIn(id);
  await setLots(id, (lot) => (lot.id === tray?.id ? { quantity: 5, price: 900, comment: 'Washed' } : null));
  const split = (pieces: number) =>
    call<{ lot: number; title: string }>('POST', `/kits/${id}/apart`, {
      how: 'pieces',
      lot: tray?.id,
      pieces,
      condition: 'parts',
    });
  expect((await split(5)).body.title).toContain('some must stay');
  const { body } = await split(2);
  const lots = await lotsIn(id);
  expect(lots.find((lot) => lot.id === tray?.id)).toMatchObject({ quantity: 3, price: 900, condition: 'good' });
  expect(lots.find((lot) => lot.id === body.lot)).toMatchObject({
    quantity: 2,
    price: null,
    condition: 'parts',
    comment: 'Washed',
  });
});

test('the steps of the workbench on lots: each whole or not at all, kept prices left, what is in stock waits', async () => {
  const id = await newKit();
  await put(id, { text: '6 x tray\n4 x clip\n2 x tank' });
  await setLots(id, (_lot, at) => ({ price: at === 2 ? null : 1_000, isKept: at === 1 }));
  const lots = (await lotsIn(id)).map((lot) => ({ id: lot.id, baseVersion: lot.version }));
  const steps = (some: unknown[], who = lots) =>
    call<{ changed: { id: number }[]; refused: { id: number; why: string }[] }>('POST', `/kits/${id}/steps`, {
      lots: who,
      steps: some,
    });
  const lower = { field: 'price', do: { verb: 'percent', basisPoints: -1_000 } };
  const { body } = await steps([lower, { field: 'location', do: { verb: 'set', value: 'A1' } }]);
  expect(body.changed).toHaveLength(1);
  expect(body.refused.map((one) => one.why)).toEqual(['Its price is kept', expect.stringContaining('no price')]);
  expect(await lotsIn(id)).toMatchObject([
    { price: 900, place: 'A1', isKept: false },
    { price: 1_000, place: '' },
    { price: null, place: '' },
  ]);
  expect((await steps([lower])).body.refused.map((one) => one.why)).toContain('Somebody changed it meanwhile');
  expect((await steps([{ field: 'title', do: { verb: 'set', value: 'x' } }])).body.refused).toHaveLength(3);
  const places = await call<{ taken: { place: string; lots: number }[] }>('POST', `/kits/${await newKit()}/places`, {
    places: ['A1'],
  });
  expect(places.body.taken[0]?.lots).toBeGreaterThanOrEqual(1);
});
