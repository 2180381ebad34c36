import { randomUUID } from 'node:crypto';
import { covers, type Role, roles } from '../../../src/core/access';
import type { IntakeSettings } from '../../../src/core/batch/settings';
import { newBatch, settingsWith, strangeCode } from '../../support/intake';
import { readyItem, sheet } from '../../support/items';
import { callAs, newPerson, tokenAs } from '../../support/people';
import { alone, call, stack } from '../../support/stack';

type Operation = { description: string; responses: Record<string, unknown> };
type Walked = { name: string; method: string; path: string; least: Role };

/** What each role but the seller is there for, written down once more: a new endpoint is open to nobody by mistake. */
const forPackers = `
GET /access GET /accounts GET /badges GET /batches GET /batches/{id} GET /batches/{id}/lines GET /boxes GET /catalogues
GET /consignments GET /consignments/accounts GET /consignments/stock GET /consignments/{id} GET /custom-fields GET /fields
GET /intake-presets GET /items GET /items/blank GET /items/count GET /items/{id} GET /items/{id}/history
GET /items/{id}/stock GET /items/{id}/titles GET /items/{id}/wording GET /labels/queue GET /live GET /me GET /open-items
GET /photo-drops GET /photo-drops/{id} GET /photos/flawed GET /photos/flaws GET /photos/recipe GET /progress
GET /reminders GET /searches GET /settings GET /shipments/{id}/papers GET /stages GET /tasks GET /words
PATCH /batches/{id} PATCH /items/{id} POST /batches POST /batches/{id}/acts POST /consignments/{id}/packed
POST /consignments/{id}/units POST /items POST /items/{id}/number POST /items/{id}/phone POST /items/{id}/photos
POST /items/{id}/photos/made POST /items/{id}/stock POST /labels/file POST /labels/preview POST /labels/print
POST /labels/queue/{id}/stop POST /me/leave POST /photo-drops POST /photo-drops/{id}/add POST /photo-drops/{id}/close
POST /photo-drops/{id}/move POST /photo-drops/{id}/tie POST /photos POST /photos/look POST /photos/shared
POST /products/choose POST /products/find POST /sessions/end POST /shipments/{id}/contents POST /tasks/{id}/resume
POST /tasks/{id}/stop POST /tokens DELETE /tokens/{id} PUT /items/{id}/photos PUT /items/{id}/photos/flaw
PUT /match-questions/{id} PUT /photo-drops/{id}/files/{file} PUT /shipments/{id}/boxes
`;
const forOwners = `
POST /accounts GET /people POST /people/invite POST /people/role POST /people/remove DELETE /invitations/{id}
GET /people/file GET /summaries PUT /summaries POST /summaries/key POST /summaries/now
`;
const listed = (text: string) =>
  [...text.matchAll(/([A-Z]+) (\/\S+)/g)].map(([, method, path]) => `${method} ${path}`).sort();

let all: Walked[] = [];
const tokens = new Map<Role, string>();
const tokenOf = (role: Role) => ({ token: tokens.get(role) ?? '' });

beforeAll(async () => {
  const answer = await fetch(`${stack.base}/api/openapi.json`, { headers: { authorization: `Bearer ${stack.token}` } });
  const { paths } = (await answer.json()) as { paths: Record<string, Record<string, Operation>> };
  all = Object.entries(paths).flatMap(([full, methods]) =>
    Object.entries(methods).map(([small, { description }]): Walked => {
      const [, least] = /at least the role (\w+)/.exec(description) ?? [];
      const method = small.toUpperCase();
      const path = full.replace('/api/v1', '');
      return { name: `${method} ${path}`, method, path, least: roles.find((one) => one === least) ?? 'owner' };
    }),
  );
  for (const role of roles) tokens.set(role, await tokenAs(role));
}, 60_000);

test('every endpoint says which role it needs, as it was meant', () => {
  expect(all.length).toBeGreaterThan(200);
  expect(
    all
      .filter((one) => one.least === 'packer')
      .map((one) => one.name)
      .sort(),
  ).toEqual(listed(forPackers));
  expect(
    all
      .filter((one) => one.least === 'owner')
      .map((one) => one.name)
      .sort(),
  ).toEqual(listed(forOwners));
});

/** Calls it with numbers of nothing and no body: whoever may gets any other answer than *not for you*. */
async function isRefused(one: Walked, role: Role): Promise<boolean> {
  const stop = new AbortController();
  try {
    const answer = await fetch(`${stack.base}/api/v1${one.path.replace(/\{\w+\}/g, '999999999')}`, {
      method: one.method,
      headers: { authorization: `Bearer ${tokens.get(role)}`, ...alone },
      signal: stop.signal,
    });
    if (answer.status !== 403) return false;
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    expect(await answer.json()).toMatchObject({ code: 'not-allowed', fix: 'Ask an owner of the shop' });
    return true;
  } finally {
    stop.abort();
  }
}

test.each(roles)(
  'as %s every endpoint is open or closed as it says',
  async (role) => {
    const wrong: string[] = [];
    let open = 0;
    for (const one of all) {
      const may = covers(role, one.least);
      if (may) open++;
      if ((await isRefused(one, role)) === may) wrong.push(`${one.name} is ${may ? 'closed' : 'open'}`);
    }
    expect(wrong).toEqual([]);
    expect(open).toBeGreaterThan(50);
  },
  240_000,
);

test('what was paid is told to no packer, in no answer, and is not found out by asking', async () => {
  const secret = 7_654_321;
  const { id, sku } = await readyItem({ cost: secret });
  const version = async () => (await sheet(id)).item.version;
  const raised = await call('PATCH', `/items/${id}`, { baseVersion: await version(), patch: { cost: secret + 1 } });
  expect(raised.status).toBe(200);
  const packer = tokenOf('packer');
  // Each tells it to a seller: without that it would be no news that a packer is not told.
  for (const path of [`/items?q=${sku}`, `/items/${id}`, `/items/${id}/history`]) {
    const seller = await callAs(tokenOf('seller'), 'GET', path);
    expect(JSON.stringify(seller.body)).toMatch(/765432/);
    const told = await callAs(packer, 'GET', path);
    expect(told.status).toBe(200);
    expect(JSON.stringify(told.body)).not.toMatch(/765432/);
  }
  const item = await callAs<{ item: { title: string; cost: null; price: number } }>(packer, 'GET', `/items/${id}`);
  expect(item.body.item).toMatchObject({ cost: null, price: 14_900 });
  const where = (filter: unknown) => `/items?where=${encodeURIComponent(JSON.stringify(filter))}`;
  for (const path of [
    '/items?sort=cost',
    where({ field: 'cost', op: 'between', value: [1, null] }),
    where({ any: [{ all: [{ listing: { netBelow: 5 } }] }] }),
  ]) {
    expect((await callAs(tokenOf('seller'), 'GET', path)).status).toBe(200);
    expect(await callAs(packer, 'GET', path)).toMatchObject({ status: 403, body: { code: 'not-allowed' } });
  }
  const changed = await callAs(packer, 'PATCH', `/items/${id}`, { baseVersion: await version(), patch: { cost: 5 } });
  expect(changed).toMatchObject({ status: 403, body: { field: 'cost' } });
  const moved = await callAs(packer, 'PATCH', `/items/${id}`, {
    baseVersion: await version(),
    patch: { location: 'Shelf 4' },
  });
  expect(moved.status).toBe(200);
  const shelf = await call<{ item: { location: string; cost: number } }>('GET', `/items/${id}`);
  expect(shelf.body.item).toMatchObject({ location: 'Shelf 4', cost: secret + 1 });
});

test('nor are a page’s first data', async () => {
  const { cookie } = await newPerson('packer');
  const { sku } = await readyItem({ cost: 7_654_321 });
  const html = await (await fetch(`${stack.base}/?sort=created&dir=desc`, { headers: { cookie, ...alone } })).text();
  expect(html).toContain('Netting');
  expect(html).not.toContain(sku);
  expect(html).not.toContain('7654321');
});

test('a packer takes in what bears the cost that the batch says, and keeps the rest of it as it was', async () => {
  const settings = settingsWith({ cost: 321, leastNet: 700, price: { by: 'cost', times: 300, plus: 0 } });
  const batch = await newBatch({ totalCost: 9_900, shareBy: 'weight', settings });
  const packer = tokenOf('packer');
  type Seen = { version: number; totalCost: number | null; shareBy: string; name: string; settings: IntakeSettings };
  const seenBy = async (role: Role) => (await callAs<Seen>(tokenOf(role), 'GET', `/batches/${batch}`)).body;
  const told = await seenBy('packer');
  expect(told).toMatchObject({ totalCost: null, settings: { cost: null } });
  const sent = { ...told.settings, place: 'Shelf 9' };
  const act = {
    act: 'scan',
    key: randomUUID(),
    text: strangeCode(77_000_000 + (Date.now() % 1_000_000)),
    settings: sent,
  };
  type Taken = { done: { lines: { leave: string; item: { id: number; cost: null } }[] }[] };
  const taken = await callAs<Taken>(packer, 'POST', `/batches/${batch}/acts`, { acts: [act] });
  expect(taken.status).toBe(201);
  const made = taken.body.done[0]?.lines[0]?.item;
  expect(made?.cost).toBeNull();
  // Not even in words: 6.33 would be left of it, and 3.21 was paid.
  expect(taken.body.done[0]?.lines[0]?.leave).toMatch(/^Leave it: \D+$/);
  const lines = await callAs(packer, 'GET', `/batches/${batch}/lines`);
  expect(JSON.stringify(lines.body)).not.toMatch(/6\.33|321|633/);
  expect((await sheet(made?.id ?? 0)).item).toMatchObject({ cost: 321, price: 963, location: 'Shelf 9' });
  const change = {
    baseVersion: told.version,
    name: 'As packed',
    totalCost: null,
    shareBy: 'number',
    shares: {},
    settings: sent,
  };
  expect((await callAs(packer, 'PATCH', `/batches/${batch}`, change)).status).toBe(200);
  expect(await seenBy('owner')).toMatchObject({
    name: 'As packed',
    totalCost: 9_900,
    shareBy: 'weight',
    settings: { ...settings, place: 'Shelf 9' },
  });
});
