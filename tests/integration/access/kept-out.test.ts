import { eq, sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { apiToken } from '../../../src/db/schema';
import { newPerson, password, signIn, toSignIn } from '../../support/people';
import { alone, call, stack } from '../../support/stack';

afterAll(closeDatabase);

type Told = { signIns: { byName: string; what: string }[]; events: { byName: string; what: string }[] };
const told = async () => (await call<Told>('GET', '/people')).body;
const asked = (path: string, headers: Record<string, string> = {}) =>
  fetch(`${stack.base}${path}`, { headers: { ...alone, ...headers } });

test('who signs in, or tries to, is kept with the address; strangers’ words of it count for nothing', async () => {
  const { email, name } = await newPerson('packer');
  await toSignIn('sign-in/email', { email, password: 'not-the-password' });
  await fetch(`${stack.base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: stack.base, 'x-forwarded-for': '203.0.113.77', ...alone },
    body: JSON.stringify({ email, password }),
  });
  const own = (await told()).signIns.filter((one) => one.byName === name);
  expect(own.map((one) => one.what)).toEqual([
    'Signed in, from 127.0.0.1',
    'A wrong password was given, from 127.0.0.1',
    'Signed in, from 127.0.0.1',
  ]);
  // What nobody has could be tried without end.
  await toSignIn('sign-in/email', { email: `nobody-${Date.now()}@grainhouse.example`, password: 'not-the-password' });
  expect((await told()).signIns.filter((one) => one.byName.includes('nobody'))).toEqual([]);
});

test('another password signs out everybody else, also when the request says that it shall not', async () => {
  const { email, cookie, name } = await newPerson('seller');
  const elsewhere = await signIn(email);
  const answer = await toSignIn(
    'change-password',
    { currentPassword: password, newPassword: 'another-harbour-72', revokeOtherSessions: false },
    cookie,
  );
  expect(answer.status).toBe(200);
  expect((await asked('/api/v1/access', { cookie: elsewhere })).status).toBe(401);
  expect((await told()).events).toContainEqual(
    expect.objectContaining({ byName: name, what: expect.stringContaining('Changed the own password') }),
  );
});

test('a token ends on its day', async () => {
  const { body } = await call<{ token: string }>('POST', '/tokens', { name: 'for a day', days: 1 });
  const withIt = () => asked('/api/v1/access', { authorization: `Bearer ${body.token}` });
  expect((await withIt()).status).toBe(200);
  const { tokens } = (await call<{ tokens: { id: number; name: string; until: string }[] }>('GET', '/access')).body;
  const [mine] = tokens;
  const hours = (Date.parse(mine?.until ?? '') - Date.now()) / 3_600_000;
  expect(hours).toBeGreaterThan(23);
  expect(hours).toBeLessThanOrEqual(24);
  await database()
    .update(apiToken)
    .set({ expiresAt: sql`utc_timestamp(3) - interval 1 second` })
    .where(eq(apiToken.id, mine?.id ?? 0));
  expect((await withIt()).status).toBe(401);
  for (const days of [0, 367, 1.5])
    expect((await call('POST', '/tokens', { name: 'for ever', days })).status).toBe(422);
});

test('half of a character is refused at the door, a whole one is not', async () => {
  const make = (name: string) => call<{ title?: string }>('POST', '/tokens', { name, days: 1 });
  expect(await make('\ud800')).toMatchObject({ status: 422, body: { title: expect.stringContaining('surrogate') } });
  expect((await make('🦊')).status).toBe(201);
});

test('metrics are for who has the key, and tell how the shop is', async () => {
  const key = process.env.NETTING_METRICS_KEY ?? '';
  expect(key).not.toBe('');
  expect((await asked('/api/metrics')).status).toBe(401);
  expect((await asked('/api/metrics', { authorization: 'Bearer x' })).status).toBe(401);
  await asked('/api/v1/items/999999999', { authorization: 'Bearer x' });
  const answer = await asked('/api/metrics', { authorization: `Bearer ${key}` });
  expect(answer.headers.get('content-type')).toContain('text/plain');
  const text = await answer.text();
  for (const name of [
    'netting_urgent_oldest_seconds ',
    'netting_account_heard_seconds{account="',
    'netting_account_unheard{account="',
    'netting_database_connections{state="open"}',
    'netting_process_cpu_user_seconds_total',
    'netting_request_seconds_count{method="GET",path="',
  ])
    expect(text).toContain(name);
  // What is asked for does not make new series, and nothing secret is told.
  expect(text).not.toContain('999999999');
  expect(text).not.toContain('grainhouse.example');
  expect((await asked('/api/alive')).status).toBe(200);
});
