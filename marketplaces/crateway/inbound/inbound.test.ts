import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { apiRoutes } from '../../kit/api';
import { Store } from '../../kit/store';
import type { Data, Seller } from '../../kit/types';
import { Deliverer } from '../../kit/webhooks';
import { World } from '../../kit/world';
import { crateway } from '../market';
import { boxProblems } from './boxes';
import { inboundDeeds, inboundPart } from './control';
import { split, spreads } from './split';
import type { Box, Shipment, Units } from './types';

let folder = '';
let store: Store;
let world: World;
let app: ReturnType<typeof apiRoutes>;
let seller: Seller;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'netting-inbound-'));
  store = new Store(join(folder, 'store'));
  world = new World(store, [crateway], folder);
  app = apiRoutes(world, crateway, new Deliverer(world));
  seller = await world.addSeller('crateway', 's', 'p', {});
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true, force: true });
});

async function ask<T = Data>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
  const answer = await app.request(path, {
    method,
    headers: { 'x-api-key': seller.apiKey, 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return { status: answer.status, body: (await answer.json()) as T };
}

/** Books of the shelf: they take any box, and demand nothing. */
const book = (index: number) => `CW${4_040 + index}`;
const units = (count: number, each = 4) =>
  Array.from({ length: count }, (_, index) => ({ number: `N-${index}`, product: book(index), quantity: each }));
type Planned = {
  id: string;
  placements: { warehouse: string; units: Units[]; placing: number }[];
  refused: (Units & { reason: string })[];
  labelling: number;
};
const plan = (given: object) => ask<Planned>('POST', '/inbound/plans', { labels: 'self', ...given });
const boxOf = ({ units: some }: Pick<Shipment, 'units'>): object => ({
  grams: 9_000,
  millimetres: [400, 300, 300],
  contents: some.map(({ number, quantity }) => ({ number, quantity })),
});

test('a split has every unit, in the warehouses that are open, whichever way it is split', () => {
  const one = fc.record({ number: fc.uuid(), product: fc.constant('CW1'), quantity: fc.integer({ min: 1, max: 60 }) });
  const all = ['NW', 'HB', 'SF'].map((id) => ({ id, name: id, address: [], closed: false }));
  fc.assert(
    fc.property(
      fc.uniqueArray(one, { minLength: 1, maxLength: 12, selector: ({ number }) => number }),
      fc.subarray(all, { minLength: 1 }),
      fc.constantFrom(...spreads),
      fc.nat(9),
      (some, open, spread, turn) => {
        const placements = split(some, open, spread, turn);
        expect(new Set(placements.map(({ warehouse }) => warehouse)).size).toBe(placements.length);
        for (const { number, quantity } of some) {
          const there = placements.flatMap((part) => part.units).filter((part) => part.number === number);
          expect(there.reduce((sum, part) => sum + part.quantity, 0)).toBe(quantity);
        }
        for (const { warehouse } of placements) expect(open.map(({ id }) => id)).toContain(warehouse);
      },
    ),
  );
});

test('a plan says where each unit goes and what that costs; asked again it is split another way', async () => {
  const first = await plan({ units: units(5) });
  expect(first.status).toBe(201);
  expect(first.body.placements).toHaveLength(3);
  expect(first.body.placements.every((one) => one.placing === 0)).toBe(true);
  const second = await plan({ units: units(5), again: first.body.id });
  expect(second.body.placements).toHaveLength(2);
  expect(second.body.placements.reduce((sum, one) => sum + one.placing, 0)).toBe(20 * 12);
  const labelled = await plan({ units: units(5), labels: 'warehouse' });
  expect(labelled.body.labelling).toBe(20 * 18);
});

test('what cannot be taken in is refused with its reason, the rest is planned', async () => {
  const film = { number: 'F-1', product: 'CW4001', quantity: 3 };
  const soon = { ...film, number: 'F-2', expires: new Date(world.now() + 50 * 86_400_000).toISOString() };
  const { body } = await plan({ units: [...units(1), film, soon, { number: 'X', product: 'none', quantity: 1 }] });
  expect(body.refused.map((one) => [one.number, one.reason])).toEqual([
    ['F-1', 'Its expiry date is missing.'],
    ['F-2', 'It expires within 105 days of being sent in.'],
    ['X', 'There is no such product in the catalogue.'],
  ]);
  expect(body.placements.flatMap((one) => one.units).every((one) => one.number === 'N-0')).toBe(true);
});

test('a plan lapses, and a warehouse that closed in between makes it void; taken twice it is taken once', async () => {
  const lapsed = await plan({ units: units(2) });
  await world.advance(3 * 86_400_000);
  expect(await ask('POST', `/inbound/plans/${lapsed.body.id}/take`, {})).toMatchObject({ status: 409 });
  const closed = await plan({ units: units(2) });
  await inboundDeeds.warehouse?.(world, { warehouse: 'HB', closed: 'true' });
  expect((await ask('POST', `/inbound/plans/${closed.body.id}/take`, {})).status).toBe(409);
  const open = await plan({ units: units(2) });
  expect(open.body.placements.map((one) => one.warehouse)).not.toContain('HB');
  const take = () => ask<{ shipments: Shipment[] }>('POST', `/inbound/plans/${open.body.id}/take`, {});
  const [one, two] = [await take(), await take()];
  expect(two.body.shipments.map(({ id }) => id)).toEqual(one.body.shipments.map(({ id }) => id));
  expect((await ask<{ shipments: Shipment[] }>('GET', '/inbound/shipments')).body.shipments).toHaveLength(2);
});

test('boxes: too heavy, too long, lighter than what is in them, more or fewer than planned', () => {
  const shipment = { units: [{ number: 'N-0', product: 'CW1', quantity: 4 }] };
  const box = (part: Partial<Box>): Box => ({
    number: 1,
    grams: 5_000,
    millimetres: [400, 300, 200],
    contents: [{ number: 'N-0', quantity: 4 }],
    code: '',
    tracking: null,
    ...part,
  });
  const at = (...boxes: Box[]) => boxProblems(shipment, boxes, () => 500).map((one) => one.pointer);
  expect(at(box({}))).toEqual([]);
  expect(at()).toEqual(['/boxes', '/boxes']);
  expect(at(box({ grams: 23_001 }))).toEqual(['/boxes/0/grams']);
  expect(at(box({ millimetres: [631, 10, 10] }))).toEqual(['/boxes/0/millimetres']);
  expect(at(box({ grams: 1_900 }))).toEqual(['/boxes/0/grams']);
  expect(at(box({ contents: [{ number: 'N-0', quantity: 3 }] }))).toEqual(['/boxes']);
  expect(
    at(
      box({
        contents: [
          { number: 'N-0', quantity: 4 },
          { number: 'N-9', quantity: 1 },
        ],
      }),
    ),
  ).toEqual(['/boxes']);
});

test('packed, shipped, counted with one short, claimed and paid; what lies there is what arrived', async () => {
  const planned = await plan({ units: units(3) });
  const taken = await ask<{ shipments: Shipment[] }>('POST', `/inbound/plans/${planned.body.id}/take`, {});
  const [shipment] = taken.body.shipments;
  if (!shipment) throw new Error('no shipment');
  const at = `/inbound/shipments/${shipment.id}`;
  expect((await ask('POST', `${at}/shipped`, { carrier: 'Postline', tracking: [] })).status).toBe(409);
  expect((await ask('PATCH', `${at}/boxes`, { boxes: [] })).status).toBe(422);
  const boxed = await ask<Shipment>('PATCH', `${at}/boxes`, { boxes: [boxOf(shipment)] });
  expect(boxed.body.boxes).toMatchObject([{ number: 1, code: `${shipment.id}001` }]);
  expect((await ask('POST', `${at}/shipped`, { carrier: 'Postline', tracking: [] })).status).toBe(422);
  const ship = () => ask<Shipment>('POST', `${at}/shipped`, { carrier: 'Postline', tracking: ['PL-1'] });
  expect((await ship()).body.state).toBe('shipped');
  expect((await ship()).body.state).toBe('shipped');
  expect(inboundPart(world)).toContain(shipment.id);
  const [first] = shipment.units;
  await inboundDeeds.receive?.(world, { shipment: shipment.id, short: `${first?.number}:1` });
  const now = await ask<Shipment>('GET', at);
  expect(now.body.received[0]).toEqual({
    number: first?.number,
    expected: first?.quantity,
    received: (first?.quantity ?? 0) - 1,
  });
  const claim = (quantity: number) =>
    ask<Shipment>('POST', `${at}/claims`, { number: first?.number, quantity, note: 'weighed' });
  expect((await claim(2)).status).toBe(422);
  expect((await claim(1)).body.claims).toMatchObject([{ answer: 'open' }]);
  expect((await claim(1)).status).toBe(422);
  await inboundDeeds.claims?.(world, { shipment: shipment.id, answer: 'paid' });
  expect((await ask<Shipment>('GET', at)).body.claims).toMatchObject([{ answer: 'paid', cents: expect.any(Number) }]);
  const { body } = await ask<{ stock: { number: string; quantity: number; monthly: number }[] }>(
    'GET',
    '/inbound/stock',
  );
  const there = body.stock.reduce((sum, one) => sum + one.quantity, 0);
  expect(there).toBe(shipment.units.reduce((sum, one) => sum + one.quantity, 0) - 1);
});

test('one seller sees nothing of another’s plans and shipments', async () => {
  const planned = await plan({ units: units(2) });
  seller = await world.addSeller('crateway', 'other', 'p', {});
  expect((await ask('GET', `/inbound/plans/${planned.body.id}`)).status).toBe(404);
  expect((await ask('POST', `/inbound/plans/${planned.body.id}/take`, {})).status).toBe(404);
});
