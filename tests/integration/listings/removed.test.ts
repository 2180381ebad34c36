import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { removed } from '../../../src/db/schema';
import { forgetTries } from '../../../src/services/tasks/forget-tries';
import { readyItem } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accountOf, call } from '../../support/stack';

afterAll(closeDatabase);

type Removed = { id: number; name: string; byName: string; at: string };
type Templates = { templates: { id: number; name: string; fields: Record<string, string> }[]; removed: Removed[] };
type Badges = { badges: { id: number; name: string; art: unknown }[]; removed: Removed[] };

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
  expect(without.removed[0]).toMatchObject({ id, name, byName: expect.stringMatching(/./) });
  // Two at once: one has it back, the other is told.
  const both = await Promise.all([call('POST', `/templates/${id}/back`), call('POST', `/templates/${id}/back`)]);
  expect(both.map((one) => one.status).sort()).toEqual([201, 404]);
  const after = (await call<Templates>('GET', '/templates')).body;
  expect(after.templates.find((one) => one.id === id)).toEqual({
    ...before,
    version: 2,
    updatedAt: expect.any(String),
  });
  expect(after.removed.some((one) => one.id === id)).toBe(false);
  expect(await footerOf(item.id)).toContain('Ask for');
  await call('DELETE', `/templates/${id}`);
});

test('a name that was given away meanwhile is said, and nothing is lost', async () => {
  const supplier = `Removed ${randomUUID()}`;
  const first = await template(supplier);
  await call('DELETE', `/templates/${first.id}`);
  const second = await template(supplier, first.name);
  const refused = await call<{ title: string; fix: string }>('POST', `/templates/${first.id}/back`);
  expect(refused.status).toBe(409);
  expect(refused.body).toMatchObject({
    title: expect.stringContaining(first.name),
    fix: expect.stringMatching(/first/),
  });
  await call('DELETE', `/templates/${second.id}`);
  expect((await call('POST', `/templates/${first.id}/back`)).status).toBe(201);
  await call('DELETE', `/templates/${first.id}`);
});

test('a badge comes back with its number, by which photos that carry it know it; for ninety days', async () => {
  const name = `Back ${randomUUID().slice(0, 20)}`;
  const art = { kind: 'words', shape: 'tag', words: 'Tested', ground: '#115544', ink: '#ffffff' };
  const { id } = (await call<{ id: number }>('PUT', '/badges', { name, art })).body;
  const find = async () => (await call<Badges>('GET', '/badges')).body;
  const before = (await find()).badges.find((one) => one.id === id);
  await call('DELETE', `/badges/${id}`);
  expect((await call('DELETE', `/badges/${id}`)).status).toBe(404);
  expect((await find()).removed[0]).toMatchObject({ id, name });
  expect((await call('POST', `/badges/${id}/back`)).status).toBe(201);
  expect((await find()).badges.find((one) => one.id === id)).toEqual(before);
  await call('DELETE', `/badges/${id}`);
  const dayMs = 86_400_000;
  const aged = (days: number) =>
    database()
      .update(removed)
      .set({ at: new Date(Date.now() - days * dayMs) })
      .where(eq(removed.name, name));
  await aged(89);
  await forgetTries(new Date(), new Date(0));
  expect((await find()).removed.some((one) => one.id === id)).toBe(true);
  await aged(91);
  await forgetTries(new Date(), new Date(0));
  expect((await find()).removed.some((one) => one.id === id)).toBe(false);
});
