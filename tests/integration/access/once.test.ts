import { randomUUID } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { requestKey } from '../../../src/db/schema';
import { readyItem, sheet } from '../../support/items';
import { tokenAs } from '../../support/people';
import { call, stack } from '../../support/stack';

afterAll(closeDatabase);

async function send(key: string, path: string, body: unknown, token = stack.token) {
  const answer = await fetch(`${stack.base}/api/v1${path}`, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${token}`,
      'content-type': 'application/json',
      'idempotency-key': key,
      connection: 'close',
    },
    body: JSON.stringify(body),
  });
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
}
const add = { how: 'add', units: 3 };
const quantityOf = async (id: number) => (await sheet(id)).item.quantity;
const cheaper = (ids: number[]) => ({
  selection: { kind: 'items', ids },
  steps: [{ field: 'price', do: { verb: 'percent', basisPoints: -1_000, rounding: 'none', floor: null } }],
  send: false,
});

test('a command sent twice with one key is carried out once and answered the same', async () => {
  const { id } = await readyItem({ price: 10_000 }, 2);
  const key = randomUUID();
  const first = await send(key, `/items/${id}/stock`, add);
  const second = await send(key, `/items/${id}/stock`, add);
  expect(first).toEqual({ status: 201, body: { quantity: 5 } });
  expect(second).toEqual(first);
  expect(await quantityOf(id)).toBe(5);
  // Without one, or with another, it is another command.
  await call('POST', `/items/${id}/stock`, add);
  await send(randomUUID(), `/items/${id}/stock`, add);
  expect(await quantityOf(id)).toBe(11);
  const edit = randomUUID();
  const answers = [await send(edit, '/edits', cheaper([id])), await send(edit, '/edits', cheaper([id]))];
  expect(answers[1]).toEqual(answers[0]);
  expect((await sheet(id)).item.price).toBe(9_000);
});

test('many at the same moment with one key: one is carried out', async () => {
  const { id } = await readyItem({}, 1);
  const key = randomUUID();
  const all = await Promise.all(Array.from({ length: 6 }, () => send(key, `/items/${id}/stock`, add)));
  expect(await quantityOf(id)).toBe(4);
  // The others wait for the first, and are told the same.
  for (const one of all) expect(one).toEqual({ status: 201, body: { quantity: 4 } });
  expect(await send(key, `/items/${id}/stock`, add)).toEqual({ status: 201, body: { quantity: 4 } });
});

test('an answer that was lost with its process: it is said that it was begun, and not done again', async () => {
  const { id } = await readyItem({}, 1);
  const key = randomUUID();
  const before = new Set((await database().select().from(requestKey)).map((row) => row.hash));
  await send(key, `/items/${id}/stock`, add);
  const [made] = (await database().select().from(requestKey)).filter((row) => !before.has(row.hash));
  await database()
    .update(requestKey)
    .set({ answer: null, status: null })
    .where(eq(requestKey.hash, made?.hash ?? ''));
  const again = await send(key, `/items/${id}/stock`, add);
  expect(again).toMatchObject({ status: 409, body: { title: expect.stringContaining('begun already') } });
  expect(await quantityOf(id)).toBe(4);
});

test('what is shown once is kept nowhere, also with its key', async () => {
  const key = randomUUID();
  const name = `once ${key.slice(0, 8)}`;
  const first = await send(key, '/tokens', { name });
  expect(first).toMatchObject({ status: 201, body: { token: expect.stringMatching(/^net_/) } });
  const answers = (await database().select().from(requestKey)).map((row) => row.answer ?? '');
  expect(answers.join()).not.toContain(String(first.body.token));
  expect((await send(key, '/tokens', { name })).status).toBe(409);
  const { tokens } = (await call<{ tokens: { name: string }[] }>('GET', '/access')).body;
  expect(tokens.filter((one) => one.name === name)).toHaveLength(1);
});

test('what was refused may be sent again; a key is of one request', async () => {
  const { id } = await readyItem({}, 1);
  const key = randomUUID();
  expect((await send(key, `/items/${id}/sold`, { units: 5, price: 100 })).status).toBeGreaterThanOrEqual(400);
  await call('POST', `/items/${id}/stock`, { how: 'add', units: 9 });
  const now = await send(key, `/items/${id}/stock`, add);
  expect(now).toEqual({ status: 201, body: { quantity: 13 } });
  expect((await send(key, `/items/${id}/stock`, { how: 'add', units: 4 })).status).toBe(409);
  // Of one person, through whatever program.
  const same = await send(key, `/items/${id}/stock`, add, await tokenAs('seller'));
  expect(same).toEqual({ status: 201, body: { quantity: 13 } });
  const [row] = await database().select().from(requestKey).orderBy(desc(requestKey.at)).limit(1);
  expect(row?.hash).not.toContain(key);
  expect((await send('short', `/items/${id}/stock`, add)).status).toBe(422);
  expect(await quantityOf(id)).toBe(13);
});
