import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { authUser } from '../../../src/db/schema';
import {
  callAs,
  codeOf,
  cookiesOf,
  inviteAs,
  joinBy,
  newPerson,
  password,
  signIn,
  toSignIn,
} from '../../support/people';
import { alone, call, stack } from '../../support/stack';
import { totp } from '../../support/totp';

type People = {
  people: { id: string; name: string; email: string; role: string; twoStep: boolean }[];
  invitations: { id: number; forWhom: string }[];
  events: { byName: string; what: string }[];
};
afterAll(closeDatabase);

const people = async () => (await call<People>('GET', '/people')).body;
const personOf = async (email: string) => (await people()).people.find((one) => one.email === email);
const page = (path: string, cookie: string) =>
  fetch(`${stack.base}${path}`, { headers: { cookie, ...alone }, redirect: 'manual' });

test('a link is good once, also for two at the same moment, and is no use when withdrawn', async () => {
  const link = await inviteAs('packer');
  expect(await (await page(`/invited/${codeOf(link)}`, '')).text()).toContain('packer');
  const at = Date.now();
  const both = await Promise.all([1, 2].map((n) => joinBy(link, `twin-${n}-${at}@grainhouse.example`, `Twin ${n}`)));
  expect(both.sort()).toEqual([201, 403]);
  expect((await people()).people.filter((one) => one.email.includes(`-${at}@`))).toHaveLength(1);
  expect(await (await page(`/invited/${codeOf(link)}`, '')).text()).toContain('opens nothing');

  const withdrawn = await inviteAs('owner');
  const [open] = (await people()).invitations;
  expect((await call('DELETE', `/invitations/${open?.id}`)).status).toBe(200);
  expect((await call('DELETE', `/invitations/${open?.id}`)).status).toBe(404);
  expect(await joinBy(withdrawn, `late-${at}@grainhouse.example`, 'Late')).toBe(403);
  expect((await people()).events[0]?.what).toContain('Withdrew the invitation');
});

test('an address that somebody has is said at its place, and the link stays good', async () => {
  const { email } = await newPerson('seller');
  const link = await inviteAs('seller');
  const answer = await fetch(`${stack.base}/api/invited`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: stack.base },
    body: JSON.stringify({ code: codeOf(link), name: 'Again', email: email.toUpperCase(), password }),
  });
  expect(answer.status).toBe(422);
  expect(await answer.json()).toMatchObject({ errors: [{ field: 'email' }] });
  expect(await joinBy(link, `other-${Date.now()}@grainhouse.example`, 'Other')).toBe(201);
  const elsewhere = await fetch(`${stack.base}/api/invited`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: 'http://evil.example' },
    body: '{}',
  });
  expect(elsewhere.status).toBe(403);
});

test('another role holds with the very next request; what was done stands in the history under its name', async () => {
  const { cookie, email, name } = await newPerson('packer');
  expect((await callAs({ cookie }, 'GET', '/sales')).status).toBe(403);
  const { id } = (await personOf(email)) ?? { id: '' };
  await call('POST', '/people/role', { id, role: 'seller' });
  expect((await callAs({ cookie }, 'GET', '/sales')).status).toBe(200);
  expect((await callAs({ cookie }, 'GET', '/people')).status).toBe(403);
  expect((await people()).events[0]).toMatchObject({ what: `${name} is seller now, was packer` });
  const made = await callAs<{ id: number }>({ cookie }, 'POST', '/items', { fields: { title: 'By somebody else' } });
  await callAs({ cookie }, 'PATCH', `/items/${made.body.id}`, { baseVersion: 1, patch: { title: 'By another' } });
  const history = await call<{ history: { byName: string }[] }>('GET', `/items/${made.body.id}/history`);
  expect(new Set(history.body.history.map((one) => one.byName))).toEqual(new Set([name]));
});

test('a token may do no more than whom it belongs to, also when that changes, and ends with it', async () => {
  const { cookie, email } = await newPerson('seller');
  const { body } = await callAs<{ token: string }>({ cookie }, 'POST', '/tokens', { name: 'scales', role: 'owner' });
  expect((await callAs(body, 'GET', '/sales')).status).toBe(200);
  expect((await callAs(body, 'GET', '/people')).status).toBe(403);
  const { id } = (await personOf(email)) ?? { id: '' };
  await call('POST', '/people/role', { id, role: 'packer' });
  expect((await callAs(body, 'GET', '/sales')).status).toBe(403);
  type Access = { tokens: { id: number; name: string; role: string; person: string }[] };
  const mine = (await callAs<Access>({ cookie }, 'GET', '/access')).body.tokens;
  expect(mine.map((one) => [one.name, one.role])).toEqual([['scales', 'seller']]);
  // Somebody else who is no owner neither sees nor ends it.
  const other = await newPerson('seller');
  expect((await callAs<Access>(other, 'GET', '/access')).body.tokens).toEqual([]);
  expect((await callAs(other, 'DELETE', `/tokens/${mine[0]?.id}`)).status).toBe(404);
  // Nor does a token end one that may do more than it.
  const weak = await call<{ token: string }>('POST', '/tokens', { name: 'weak', role: 'packer' });
  const { tokens } = (await call<Access>('GET', '/access')).body;
  const strong = tokens.find((one) => one.name === 'demo');
  expect((await callAs(weak.body, 'DELETE', `/tokens/${strong?.id}`)).status).toBe(403);
  expect((await callAs({ cookie }, 'DELETE', `/tokens/${mine[0]?.id}`)).status).toBe(200);
  expect((await callAs(body, 'GET', '/items')).status).toBe(401);
});

test('sessions are listed and ended; the password is changed by who knows it, and slowed for who does not', async () => {
  const { cookie, email } = await newPerson('packer');
  const elsewhere = await signIn(email);
  type Access = { sessions: { id: string; isThis: boolean }[] };
  const { sessions } = (await callAs<Access>({ cookie }, 'GET', '/access')).body;
  expect(sessions.map((one) => one.isThis).sort()).toEqual([false, true]);
  const there = sessions.find((one) => !one.isThis)?.id;
  // Nobody ends the session of another.
  const other = await newPerson('packer');
  expect((await callAs(other, 'POST', '/sessions/end', { id: there })).body).toEqual({ ended: 0 });
  expect((await callAs({ cookie }, 'POST', '/sessions/end', { id: there })).body).toEqual({ ended: 1 });
  expect((await callAs({ cookie: elsewhere }, 'GET', '/me')).status).toBe(401);

  const change = (currentPassword: string) =>
    toSignIn(
      'change-password',
      { currentPassword, newPassword: 'another-harbour-72', revokeOtherSessions: true },
      cookie,
    );
  const third = await signIn(email);
  expect((await change('wrong-password')).status).toBe(400);
  const changed = await change(password);
  expect(changed.status).toBe(200);
  expect((await callAs({ cookie: third }, 'GET', '/me')).status).toBe(401);
  expect((await callAs({ cookie: cookiesOf(changed) }, 'GET', '/me')).status).toBe(200);
  await expect(signIn(email)).rejects.toThrow('401');
  const now = await signIn(email, 'another-harbour-72');
  const tries: number[] = [];
  for (let n = 0; n < 7; n++)
    tries.push(
      (await toSignIn('change-password', { currentPassword: `guess-${n}-guess`, newPassword: password }, now)).status,
    );
  expect(tries.at(-1)).toBe(429);
});

test('this way of counting codes is the published one', () => {
  // RFC 6238, appendix B: the last six of eight digits.
  const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
  expect(totp(secret, 59_000)).toBe('287082');
  expect(totp(secret, 1_111_111_109_000)).toBe('081804');
});

test('with the second step a password alone opens nothing; a code does, a kept code once', async () => {
  const { cookie, email } = await newPerson('seller');
  const begun = await toSignIn('two-factor/enable', { password }, cookie);
  expect(begun.status).toBe(200);
  const { totpURI, code, backupCodes } = (await begun.json()) as {
    totpURI: string;
    code: string;
    backupCodes: string[];
  };
  expect(totpURI).toContain('issuer=Netting');
  expect(code).toContain('<svg');
  expect(JSON.stringify(await people())).not.toContain(backupCodes[0]);
  // Begun is not done: somebody who could not photograph it is not locked out.
  expect((await callAs({ cookie: await signIn(email) }, 'GET', '/me')).status).toBe(200);
  const secret = new URL(totpURI).searchParams.get('secret') ?? '';
  expect((await toSignIn('two-factor/verify-totp', { code: '000000' }, cookie)).status).toBe(401);
  expect((await toSignIn('two-factor/verify-totp', { code: totp(secret) }, cookie)).status).toBe(200);
  expect((await personOf(email))?.twoStep).toBe(true);

  const half = await toSignIn('sign-in/email', { email, password });
  expect(await half.json()).toMatchObject({ twoFactorRedirect: true });
  const cookies = cookiesOf(half);
  expect((await callAs({ cookie: cookies }, 'GET', '/me')).status).toBe(401);
  expect((await toSignIn('two-factor/verify-totp', { code: '123' }, cookies)).status).toBe(401);
  const whole = await toSignIn('two-factor/verify-totp', { code: totp(secret) }, cookies);
  expect(whole.status).toBe(200);
  expect((await callAs({ cookie: cookiesOf(whole) }, 'GET', '/me')).status).toBe(200);

  for (const wanted of [200, 401]) {
    const again = await toSignIn('sign-in/email', { email, password });
    const kept = await toSignIn('two-factor/verify-backup-code', { code: backupCodes[0] }, cookiesOf(again));
    expect(kept.status).toBe(wanted);
  }
});

test('who leaves is out at once, the shop keeps an owner, and what was done keeps its name', async () => {
  const { cookie, name, email } = await newPerson('packer');
  const { body } = await callAs<{ token: string }>({ cookie }, 'POST', '/tokens', { name: 'phone' });
  expect((await callAs({ cookie }, 'POST', '/me/leave', {})).status).toBe(201);
  expect((await callAs({ cookie }, 'GET', '/me')).status).toBe(401);
  expect((await callAs(body, 'GET', '/me')).status).toBe(401);
  await expect(signIn(email)).rejects.toThrow('401');
  expect((await people()).events[0]).toMatchObject({ byName: name, what: 'Left the shop' });

  const [owner] = (await people()).people.filter((one) => one.role === 'owner');
  const others = (await people()).people.filter((one) => one.role === 'owner' && one.id !== owner?.id);
  for (const one of others) await call('POST', '/people/remove', { id: one.id });
  for (const attempt of [
    call('POST', '/people/remove', { id: owner?.id }),
    call('POST', '/people/role', { id: owner?.id, role: 'seller' }),
    callAs({ cookie: await signIn('owner@grainhouse.example', 'harbour-light-35') }, 'POST', '/me/leave', {}),
  ])
    expect(await attempt).toMatchObject({ status: 409, body: { title: 'The shop needs an owner' } });
  // A program leaves for nobody, and signs nobody out.
  expect(await call('POST', '/me/leave', {})).toMatchObject({
    status: 403,
    body: { title: 'A program cannot do this' },
  });
  expect((await call('POST', '/sessions/end', {})).status).toBe(403);
  // Two owners who go at the same moment: one stays.
  const second = await newPerson('owner');
  const third = await newPerson('owner');
  // The demo's owner is one for the moment, too; without him each is the other's only successor.
  const first = await personOf('owner@grainhouse.example');
  expect((await callAs(second, 'POST', '/people/role', { id: first?.id, role: 'seller' })).status).toBe(201);
  try {
    const both = await Promise.all([second, third].map((one) => callAs(one, 'POST', '/me/leave', {})));
    expect(both.map((one) => one.status).sort()).toEqual([201, 409]);
    const stays = both[0]?.status === 409 ? second : third;
    expect((await callAs(stays, 'POST', '/people/role', { id: first?.id, role: 'owner' })).status).toBe(201);
    expect((await callAs(stays, 'POST', '/me/leave', {})).status).toBe(201);
  } finally {
    await database()
      .update(authUser)
      .set({ role: 'owner' })
      .where(eq(authUser.id, first?.id ?? ''));
  }
  expect(await personOf('owner@grainhouse.example')).toBeDefined();
});

test('of the sign-in only what is needed is open', async () => {
  for (const place of [
    'sign-up/email',
    'update-user',
    'delete-user',
    'change-email',
    'list-sessions',
    'two-factor/get-totp-uri',
  ])
    expect((await toSignIn(place, {})).status).toBe(404);
  expect((await page('/api/auth/list-sessions', '')).status).toBe(404);
});
