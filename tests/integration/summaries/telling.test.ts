import { rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { Webhook } from 'standardwebhooks';
import { closeDatabase, database } from '../../../src/db/client';
import { account, dailySummary, setting } from '../../../src/db/schema';
import { makeSummary } from '../../../src/services/summaries/make-summary';
import { sendSummaries } from '../../../src/services/summaries/send-summaries';
import { accountOf, alone, call, stack, until } from '../../support/stack';

type Told = { day: string; lines: number; sentAt: string | null; problem: string | null };
type Summaries = { hour: number; address: string | null; hasFeed: boolean; days: Told[] };
type Heard = { headers: Record<string, string>; body: string };

const heard: Heard[] = [];
let answers = 200;
let server: Server;
let address = '';
const settingsFile = join(stack.dataFolder, 'settings.json');

beforeAll(async () => {
  server = createServer((request, response) => {
    let body = '';
    request.on('data', (part: Buffer) => {
      body += part.toString();
    });
    request.on('end', () => {
      heard.push({ headers: request.headers as Record<string, string>, body });
      response.writeHead(answers).end();
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/told`;
});
afterAll(async () => {
  rmSync(settingsFile, { force: true });
  const db = database();
  for (const name of ['summary', 'summaryFeed', 'summarySecret'])
    await db.delete(setting).where(eq(setting.name, name));
  await db.delete(dailySummary);
  await closeDatabase();
  await new Promise((resolve) => server.close(resolve));
});

const keyOf = async (what: string) => (await call<{ key: string }>('POST', '/summaries/key', { what })).body.key;
const tell = async () => (await call<Summaries>('POST', '/summaries/now', {})).body.days[0];

test('an address inside the network is told nothing unless the settings file names it; then it is signed', async () => {
  expect((await call('PUT', '/summaries', { hour: 23, address: 'ftp://shop.example' })).status).toBe(422);
  await call('PUT', '/summaries', { hour: 23, address });
  expect((await tell())?.problem).toBe('There is no secret to sign it with');
  const secret = await keyOf('secret');
  expect((await tell())?.problem).toContain('a net that Netting does not speak to');
  expect(heard).toEqual([]);

  writeFileSync(settingsFile, JSON.stringify({ insideOrigins: [new URL(address).origin] }));
  expect(await tell()).toMatchObject({ problem: null, sentAt: expect.any(String) });
  const [message] = heard;
  const told = new Webhook(secret).verify(message?.body ?? '', message?.headers ?? {});
  expect(told).toMatchObject({ type: 'attention.summary', data: { lines: expect.any(Array) } });
  expect(() => new Webhook(`whsec_${'A'.repeat(44)}`).verify(message?.body ?? '', message?.headers ?? {})).toThrow();
  expect(JSON.stringify((await call('GET', '/summaries')).body)).not.toContain(secret);
});

test('what does not get through is sent again later, under the same id, and once', async () => {
  answers = 503;
  expect((await tell())?.problem).toBe('It answered 503');
  const [last] = heard.slice(-1);
  const before = heard.length;
  const soon = new Date(Date.now() + 60_000);
  await sendSummaries(soon);
  expect(heard.length).toBe(before);
  answers = 200;
  const later = new Date(Date.now() + 6 * 60_000);
  await Promise.all([sendSummaries(later), sendSummaries(later), sendSummaries(later)]);
  expect(heard.length).toBe(before + 1);
  expect(heard.at(-1)?.headers['webhook-id']).toBe(last?.headers['webhook-id']);
  expect((await call<Summaries>('GET', '/summaries')).body.days[0]).toMatchObject({ problem: null });
});

test('it is made once a day, from its hour on, and says what waits', async () => {
  const shop = await accountOf('Glintfeed');
  const db = database();
  await db
    .update(account)
    .set({ lockedUntil: new Date(Date.now() + 3_600_000) })
    .where(eq(account.id, shop));
  const at = (day: number, hour: number) => new Date(2027, 2, day, hour, 5);
  try {
    await call('PUT', '/summaries', { hour: 8, address: null });
    await keyOf('off');
    await makeSummary(at(3, 9));
    const of = (day: string) => db.select().from(dailySummary).where(eq(dailySummary.day, day));
    // Nobody reads it.
    expect(await of('2027-03-03')).toEqual([]);
    await keyOf('feed');
    await makeSummary(at(3, 7));
    expect(await of('2027-03-03')).toEqual([]);
    await Promise.all([makeSummary(at(3, 9)), makeSummary(at(3, 9)), makeSummary(at(3, 10))]);
    const [made] = await of('2027-03-03');
    expect(made?.lines.map((one) => one.says)).toContain('Glintfeed has locked the account for a while');
    await makeSummary(at(4, 9));
    expect(await of('2027-03-04')).toHaveLength(1);
  } finally {
    await db.update(account).set({ lockedUntil: null }).where(eq(account.id, shop));
  }
});

test('the feed is read by whoever has its address, and by nobody when it is another', async () => {
  const feed = await keyOf('feed');
  await call('POST', '/summaries/now', {});
  const read = (url: string) => fetch(url.replace(/^http:\/\/[^/]+/, stack.base), { headers: alone });
  const answer = await read(feed);
  expect(answer.headers.get('content-type')).toContain('application/atom+xml');
  expect(await answer.text()).toContain('<title>Netting: what needs you</title>');
  const other = await keyOf('feed');
  expect((await read(feed)).status).toBe(404);
  expect((await read(other)).status).toBe(200);
  await keyOf('off');
  expect((await read(other)).status).toBe(404);
});

test('the dock counts what waits, without what was put off', async () => {
  const shop = await accountOf('Lotbarn');
  const db = database();
  const lines = async () => (await call<{ lines: number }>('GET', '/progress')).body.lines;
  const need = `account-${shop}-locked`;
  const expected = async () => {
    const [causes, needs] = await Promise.all([
      call<{ causes: unknown[] }>('GET', '/causes'),
      call<{ needs: { later: unknown }[] }>('GET', '/needs'),
    ]);
    return causes.body.causes.length + needs.body.needs.filter((one) => !one.later).length;
  };
  const agrees = () =>
    until(
      async () => [await lines(), await expected()],
      ([seen, wanted]) => seen === wanted,
      45_000,
    );
  await db
    .update(account)
    .set({ lockedUntil: new Date(Date.now() + 3_600_000) })
    .where(eq(account.id, shop));
  try {
    await call('POST', '/needs/later', { need, days: 0 });
    const [with_] = await agrees();
    await call('POST', '/needs/later', { need, days: 2, why: 'they write to us' });
    const [without] = await agrees();
    expect(without).toBe((with_ ?? 0) - 1);
  } finally {
    await call('POST', '/needs/later', { need, days: 0 });
    await db.update(account).set({ lockedUntil: null }).where(eq(account.id, shop));
  }
}, 120_000);
