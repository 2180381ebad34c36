import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { removed, routine } from '../../../src/db/schema';
import { forgetTries } from '../../../src/services/tasks/forget-tries';
import { settingsWith } from '../../support/intake';
import { readyItem } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accountOf, call } from '../../support/stack';

afterAll(closeDatabase);

type Removed = { id: number; name: string; byName: string; at: string };
type Templates = { templates: { id: number; name: string; fields: Record<string, string> }[] };
const removedOf = async (kind: string) =>
  (await call<{ removed: Removed[] }>('GET', `/removed?kind=${kind}`)).body.removed;
const back = (kind: string, id: number) => call<{ title: string; fix: string }>('POST', '/removed/back', { kind, id });

async function template(supplier: string, name = `Thrown away ${randomUUID()}`) {
  const { body } = await call<{ id: number }>('POST', '/templates', {
    name,
    accounts: [await accountOf('Lanesend')],
    conditions: [{ field: 'supplier', op: 'is', value: supplier }],
    fields: { footer: 'Ask for {{ stock_number }}.' },
  });
  return { id: body.id, name };
}
const footerOf = async (item: number) => String(valueFor(await previewOn(item, 'lanesend'), 'description').value);

test('a template that was removed can be had back, and listings are computed with it again', async () => {
  const supplier = `Removed ${randomUUID()}`;
  const item = await readyItem({ supplier });
  const { id, name } = await template(supplier);
  expect(await footerOf(item.id)).toContain('Ask for');
  const before = (await call<Templates>('GET', '/templates')).body.templates.find((one) => one.id === id);
  expect((await call('DELETE', `/templates/${id}`)).status).toBe(200);
  expect(await footerOf(item.id)).not.toContain('Ask for');
  const without = (await call<Templates>('GET', '/templates')).body;
  expect(without.templates.some((one) => one.id === id)).toBe(false);
  expect((await removedOf('template'))[0]).toMatchObject({ id, name, byName: expect.stringMatching(/./) });
  // Two at once: one has it back, the other is told.
  const both = await Promise.all([back('template', id), back('template', id)]);
  expect(both.map((one) => one.status).sort()).toEqual([201, 404]);
  const after = (await call<Templates>('GET', '/templates')).body;
  expect(after.templates.find((one) => one.id === id)).toEqual({
    ...before,
    version: 2,
    updatedAt: expect.any(String),
  });
  expect((await removedOf('template')).some((one) => one.id === id)).toBe(false);
  expect(await footerOf(item.id)).toContain('Ask for');
  await call('DELETE', `/templates/${id}`);
});

test('a name that was given away meanwhile is said, and nothing is lost', async () => {
  const supplier = `Removed ${randomUUID()}`;
  const first = await template(supplier);
  await call('DELETE', `/templates/${first.id}`);
  const second = await template(supplier, first.name);
  const refused = await back('template', first.id);
  expect(refused.status).toBe(409);
  expect(refused.body).toMatchObject({
    title: expect.stringContaining(first.name),
    fix: expect.stringMatching(/first/),
  });
  await call('DELETE', `/templates/${second.id}`);
  expect((await back('template', first.id)).status).toBe(201);
  await call('DELETE', `/templates/${first.id}`);
});

const art = { kind: 'words', shape: 'tag', words: 'Tested', ground: '#115544', ink: '#ffffff' };
const filter = { field: 'brand', op: 'is', value: 'Brask' };
const plan = { every: 'day', weekday: 0, time: '07:30', zone: 'Europe/Lisbon', most: 100, isTrial: false };
const steps = [{ field: 'keywords', do: { verb: 'add-to', entries: ['spring'] } }];
/** Of each kind: how one is made, where it is found, how it is removed. */
const kinds = [
  ['badge', 'PUT /badges', { art }, 'badges', '/badges'],
  ['box', 'POST /boxes', { lengthMm: 310, widthMm: 220, heightMm: 140, grams: 190, cost: 85 }, 'boxes', '/boxes'],
  ['routine', 'POST /routines', { filter, steps, send: true }, 'routines', '/routines'],
  ['search', 'POST /searches', { filter, sort: 'price', dir: 'asc' }, 'searches', '/searches'],
  ['preset', 'PUT /intake-presets', { settings: settingsWith({ place: 'A-1' }) }, 'presets', '/intake-presets'],
  ['columns', 'POST /column-sets', { columns: ['sku', 'title'] }, 'sets', '/column-sets'],
] as const;

test.each(kinds)('%s: it comes back with its number, as it was', async (kind, how, rest, list, path) => {
  const name = `Back ${randomUUID().slice(0, 20)}`;
  const [method, address] = how.split(' ') as ['PUT' | 'POST', string];
  const { id } = (await call<{ id: number }>(method, address, { name, ...rest })).body;
  const from = kind === 'columns' ? '/file-columns' : address;
  const found = async () =>
    (await call<Record<string, { id: number }[]>>('GET', from)).body[list]?.find((one) => one.id === id);
  if (kind === 'routine') await call('PATCH', `/routines/${id}`, { plan });
  const before = await found();
  expect(before).toMatchObject({ name });
  expect((await call('DELETE', `${path}/${id}`)).status).toBe(200);
  expect((await call('DELETE', `${path}/${id}`)).status).toBe(404);
  expect(await found()).toBeUndefined();
  expect((await removedOf(kind))[0]).toMatchObject({ id, name });
  expect((await back(kind, id)).status).toBe(201);
  expect(await found()).toEqual(kind === 'preset' ? { ...before, version: 2 } : before);
  await call('DELETE', `${path}/${id}`);
});

test('what a plan should have done meanwhile is not made up for', async () => {
  const name = `Back ${randomUUID()}`;
  const { id } = (await call<{ id: number }>('POST', '/routines', { name, filter, steps, send: false })).body;
  await call('PATCH', `/routines/${id}`, { plan });
  await call('DELETE', `/routines/${id}`);
  await database()
    .update(removed)
    .set({ row: sql`json_set(row, '$.dueAt', '2020-01-01T07:30:00.000Z')` })
    .where(eq(removed.name, name));
  await back('routine', id);
  const [row] = await database().select({ dueAt: routine.dueAt }).from(routine).where(eq(routine.id, id));
  expect(row?.dueAt?.getTime()).toBeGreaterThan(Date.now());
  await call('DELETE', `/routines/${id}`);
});

test('what was removed can be had back for ninety days', async () => {
  const name = `Back ${randomUUID()}`;
  const { id } = (await call<{ id: number }>('POST', '/searches', { name, filter })).body;
  await call('DELETE', `/searches/${id}`);
  const dayMs = 86_400_000;
  const aged = (days: number) =>
    database()
      .update(removed)
      .set({ at: new Date(Date.now() - days * dayMs) })
      .where(eq(removed.name, name));
  await aged(89);
  await forgetTries(new Date(), new Date(0));
  expect((await removedOf('search')).some((one) => one.id === id)).toBe(true);
  await aged(91);
  await forgetTries(new Date(), new Date(0));
  expect((await removedOf('search')).some((one) => one.id === id)).toBe(false);
});
