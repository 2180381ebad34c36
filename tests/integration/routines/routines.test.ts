import { eq } from 'drizzle-orm';
import type { RoutineFile } from '../../../src/core/edit';
import { closeDatabase, database } from '../../../src/db/client';
import { routine, task } from '../../../src/db/schema';
import { planRoutines } from '../../../src/services/routines/plan-routines';
import { readyItem, sheet } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';

afterAll(closeDatabase);

type Routine = {
  id: number;
  name: string;
  steps: unknown[];
  dueAt: string | null;
  lastSaid: string | null;
  needsLook: boolean;
  runs: { id: number; itemCount: number; byName: string }[];
};
const unique = Date.now().toString(36);
const cheaper = [{ field: 'price', do: { verb: 'percent', basisPoints: -1_000 } }];
const of = (supplier: string) => ({ all: [{ field: 'supplier', op: 'is', value: supplier }] });
const keep = (name: string, supplier: string, steps: unknown[] = cheaper) =>
  call<{ id: number; field?: string; title?: string }>('POST', '/routines', {
    name,
    filter: of(supplier),
    steps,
    send: false,
  });
const found = async (id: number) => {
  const { body } = await call<{ routines: Routine[] }>('GET', '/routines');
  return body.routines.find((one) => one.id === id);
};
const priceOf = async (id: number) => (await sheet(id)).item.price;
const plan = (part = {}) => ({
  every: 'day',
  weekday: 0,
  time: '07:00',
  zone: 'UTC',
  most: 10,
  isTrial: true,
  ...part,
});
const patch = (id: number, body: object) => call('PATCH', `/routines/${id}`, body);
const due = async (id: number) => (await found(id))?.dueAt ?? '';

test('a series of steps is kept with its filter, carried out again, and each run can be taken back', async () => {
  const supplier = `R1-${unique}`;
  const [one, other] = [await readyItem({ supplier, price: 10_000 }), await readyItem({ supplier, price: 20_000 })];
  const { id } = (await keep(`Cheaper ${supplier}`, supplier)).body;
  expect((await keep(`Cheaper ${supplier}`, supplier)).body).toMatchObject({ field: 'name' });
  expect((await keep('Wrong', supplier, [{ field: 'photos', do: { verb: 'clear' } }])).status).toBe(422);

  const first = await call<{ runId: number; items: number }>('POST', `/routines/${id}/run`);
  expect(first.body).toMatchObject({ items: 2 });
  const later = await readyItem({ supplier, price: 30_000 });
  expect((await call<{ items: number }>('POST', `/routines/${id}/run`)).body).toMatchObject({ items: 3 });
  expect(await Promise.all([one, other, later].map((item) => priceOf(item.id)))).toEqual([8_100, 16_200, 27_000]);
  const { runs } = (await found(id)) ?? { runs: [] };
  expect(runs.map((run) => run.itemCount)).toEqual([3, 2]);
  expect((await call('POST', `/runs/${runs[0]?.id}/undo`, {})).status).toBe(201);
  expect(await priceOf(later.id)).toBe(30_000);
  expect((await call('DELETE', `/routines/${id}`)).status).toBe(200);
  expect(await found(id)).toBeUndefined();
  expect((await call('POST', `/routines/${id}/run`)).status).toBe(404);
});

test('by plan: tried first, then done once however many look, never more than it may, and told', async () => {
  const supplier = `R2-${unique}`;
  const made = [await readyItem({ supplier, price: 10_000 }), await readyItem({ supplier, price: 20_000 })];
  const prices = () => Promise.all(made.map((item) => priceOf(item.id)));
  const { id } = (await keep(`By plan ${supplier}`, supplier)).body;
  await patch(id, { plan: plan() });
  await planRoutines(new Date(await due(id)));
  expect(await found(id)).toMatchObject({
    needsLook: true,
    lastSaid: 'Tried: 2 items would change. Nothing was done',
    runs: [],
  });
  expect(await prices()).toEqual([10_000, 20_000]);
  const { body: dock } = await call<{ routines: number }>('GET', '/progress');
  expect(dock.routines).toBeGreaterThan(0);

  await patch(id, { plan: plan({ isTrial: false, most: 1 }) });
  await planRoutines(new Date(await due(id)));
  expect(await found(id)).toMatchObject({
    needsLook: true,
    lastSaid: '2 items would change, more than 1. Nothing was done',
  });

  await patch(id, { plan: plan({ isTrial: false }) });
  expect((await found(id))?.needsLook).toBe(false);
  const at = new Date(await due(id));
  const begun = await Promise.all([planRoutines(at), planRoutines(at), planRoutines(at)]);
  expect(begun.reduce((sum, one) => sum + one, 0)).toBe(1);
  await until(prices, ([one]) => one === 9_000);
  expect(await prices()).toEqual([9_000, 18_000]);
  expect(await found(id)).toMatchObject({ lastSaid: '2 items to change', needsLook: false });
  expect((await found(id))?.runs).toHaveLength(1);
  expect(new Date(await due(id)).getTime() - at.getTime()).toBe(86_400_000);
  // Nothing is due before that.
  expect(await planRoutines(at)).toBe(0);
  await call('DELETE', `/routines/${id}`);
});

test('one that cannot be carried out any more is told, and holds up no other', async () => {
  const supplier = `R3-${unique}`;
  const item = await readyItem({ supplier, price: 10_000 });
  const [broken, sound] = [(await keep(`A ${supplier}`, supplier)).body, (await keep(`B ${supplier}`, supplier)).body];
  const db = database();
  await db
    .update(routine)
    .set({ steps: [{ field: 'own.gone', where: { on: 'item' }, do: { verb: 'clear' } }] })
    .where(eq(routine.id, broken.id));
  for (const { id } of [broken, sound]) await patch(id, { plan: plan({ isTrial: false, time: '07:15' }) });
  await planRoutines(new Date(await due(sound.id)));
  expect(await found(broken.id)).toMatchObject({
    needsLook: true,
    lastSaid: 'Step 1: There is no field own.gone to change',
  });
  await until(
    () => priceOf(item.id),
    (price) => price === 9_000,
  );
  for (const { id } of [broken, sound]) await call('DELETE', `/routines/${id}`);
  // Its task is one as any other: it is told how it went.
  const [done] = await db
    .select()
    .from(task)
    .where(eq(task.title, `B ${supplier}`));
  expect(done).toMatchObject({ kind: 'edit', byName: expect.stringContaining('by plan') });
});

test('a routine goes to another shop as a file, and comes back with the accounts that are there', async () => {
  const supplier = `R4-${unique}`;
  const oakhand = await accountOf('Oakhand');
  const steps = [
    { field: 'price', where: { on: 'accounts', accounts: [oakhand] }, do: { verb: 'percent', basisPoints: -500 } },
  ];
  const filter = { all: [of(supplier), { listing: { account: oakhand, state: 'live' } }] };
  const name = `File ${supplier}`;
  const { id } = (await call<{ id: number }>('POST', '/routines', { name, filter, steps, send: true })).body;
  const { body: file } = await call<RoutineFile>('GET', `/routines/${id}/file`);
  expect(file).toMatchObject({ format: 'netting-routine-1', accounts: [{ market: 'oakhand', name: 'Oakhand' }] });
  expect(JSON.stringify(file.routine)).toContain('"accounts":[1]');
  expect((await call('POST', '/routines/file', file)).status).toBe(409);
  const renamed = { ...file, routine: { ...file.routine, name: `${name}, theirs` } };
  const taken = await call<{ id: number }>('POST', '/routines/file', renamed);
  expect((await found(taken.body.id))?.steps).toMatchObject(steps);
  const elsewhere = { ...renamed, accounts: [{ market: 'nowhere', name: 'Their shop' }] };
  expect(await call('POST', '/routines/file', elsewhere)).toMatchObject({
    status: 422,
    body: { title: 'There is no such account here: Their shop' },
  });
  expect((await call('POST', '/routines/file', { ...renamed, format: 'other' })).status).toBe(422);
  for (const one of [id, taken.body.id]) await call('DELETE', `/routines/${one}`);
});
