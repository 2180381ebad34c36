import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { NettingError } from '../core/errors';
import { Pacer } from './pacer';
import { type Access, openSession, retryAfterOf, type Session } from './session';

type Answer = { status: number; body?: string; headers?: Record<string, string>; breaksOff?: boolean };
let answers: Answer[] = [];
let asked: { method: string; path: string; headers: IncomingMessage['headers']; body: string }[] = [];
let server: Server;
let base = '';

beforeAll(async () => {
  server = createServer((request: IncomingMessage, response: ServerResponse) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      asked.push({
        method: request.method ?? '',
        path: request.url ?? '',
        headers: request.headers,
        body: Buffer.concat(chunks).toString(),
      });
      const answer = answers.shift() ?? { status: 200, body: '{}' };
      if (answer.status === 0) return void request.socket.destroy();
      response.writeHead(answer.status, answer.headers);
      if (answer.breaksOff) response.write(answer.body, () => request.socket.destroy());
      else response.end(answer.body ?? '');
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((resolve) => server.close(resolve)));
beforeEach(() => {
  answers = [];
  asked = [];
});

function open(
  access: Access = { kind: 'key', key: 'k-1' },
  renew: () => Promise<Access> = () => Promise.reject(new Error('no renewal')),
): Session {
  return openSession({
    base,
    marketName: 'Market',
    pacer: new Pacer(1_000_000),
    readAccess: async () => access,
    renewAccess: renew,
    timeoutMs: 2_000,
  });
}
const failure = async (answer: Answer): Promise<NettingError> => {
  answers = [answer];
  const error: unknown = await open()
    .send({ method: 'GET', path: '/x' })
    .catch((caught: unknown) => caught);
  if (!(error instanceof NettingError)) throw new Error(`expected an error with a name, got ${String(error)}`);
  return error;
};

test('a key or a token goes along, and what is sent has its type', async () => {
  await open().send({ method: 'POST', path: '/a', body: { one: 1 }, idempotencyKey: 'i-1' });
  expect(asked[0]).toMatchObject({ method: 'POST', path: '/a', body: '{"one":1}' });
  expect(asked[0]?.headers).toMatchObject({
    'x-api-key': 'k-1',
    'content-type': 'application/json',
    'idempotency-key': 'i-1',
  });
  await open({ kind: 'oauth', accessToken: 't-1', refreshToken: 'r', expiresAt: '' }).send({
    method: 'GET',
    path: '/b',
  });
  expect(asked[1]?.headers.authorization).toBe('Bearer t-1');
  await open().send({ method: 'POST', path: '/c', bytes: Buffer.from([255, 216]) });
  expect(asked[2]?.headers['content-type']).toBe('image/jpeg');
});

test('lines travel as lines and come back as a list', async () => {
  answers = [{ status: 200, body: '{"ok":true}\n{"ok":false}\n' }];
  const answer = await open().send({ method: 'POST', path: '/lines', lines: [{ a: 1 }, { b: 'x\ny' }] });
  expect(asked[0]?.headers['content-type']).toBe('application/x-ndjson');
  expect(asked[0]?.body).toBe('{"a":1}\n{"b":"x\\ny"}');
  expect(answer).toEqual([{ ok: true }, { ok: false }]);
});

test('access that has run out is renewed once, and the request goes again', async () => {
  answers = [{ status: 401 }, { status: 200, body: '{"fine":true}' }];
  let renewed = 0;
  const session = open({ kind: 'oauth', accessToken: 'old', refreshToken: 'r', expiresAt: '' }, async () => {
    renewed++;
    return { kind: 'oauth', accessToken: 'new', refreshToken: 'r', expiresAt: '' };
  });
  expect(await session.send({ method: 'GET', path: '/x' })).toEqual({ fine: true });
  expect(renewed).toBe(1);
  expect(asked.map((one) => one.headers.authorization)).toEqual(['Bearer old', 'Bearer new']);
});

test('access that another one has just renewed may have run out as well; one that is never taken is refused', async () => {
  answers = [{ status: 401 }, { status: 401 }, { status: 200, body: '{"fine":true}' }];
  let given = 0;
  const renew = async (): Promise<Access> => ({
    kind: 'oauth',
    accessToken: `new ${++given}`,
    refreshToken: 'r',
    expiresAt: '',
  });
  const old: Access = { kind: 'oauth', accessToken: 'old', refreshToken: 'r', expiresAt: '' };
  expect(await open(old, renew).send({ method: 'GET', path: '/x' })).toEqual({ fine: true });
  expect(asked.map((one) => one.headers.authorization)).toEqual(['Bearer old', 'Bearer new 1', 'Bearer new 2']);
  answers = Array.from({ length: 9 }, () => ({ status: 401, body: 'No' }));
  await expect(open(old, renew).send({ method: 'GET', path: '/x' })).rejects.toMatchObject({ code: 'market-auth' });
  expect(answers).toHaveLength(6);
});

test.each([
  [{ status: 422, body: 'The name is too long.' }, 'market-refused', 'Market: The name is too long.'],
  [{ status: 400, body: '' }, 'market-refused', 'Market: it answered 400'],
  [{ status: 403, body: 'The token lacks a scope' }, 'market-auth', 'Market: The token lacks a scope'],
  [{ status: 403, body: 'Selling is suspended' }, 'market-locked', 'Market: Selling is suspended'],
  [
    { status: 403, body: 'This account is locked for a while' },
    'market-locked',
    'Market: This account is locked for a while',
  ],
  [{ status: 404, body: 'Gone' }, 'not-found', 'Market: Gone'],
  [{ status: 409, body: 'An offer is open' }, 'market-blocked', 'Market: An offer is open'],
  [{ status: 429, body: 'Slow down' }, 'market-busy', 'Market: Slow down'],
  [{ status: 500, body: 'Oops' }, 'market-unreachable', 'Market: Oops'],
  [{ status: 504, body: '<html>Gateway</html>' }, 'market-unreachable', 'Market: it answered 504'],
  [{ status: 0 }, 'market-unreachable', 'Market did not answer'],
  [{ status: 200, body: 'not json' }, 'market-unreachable', 'Market gave an answer that cannot be read'],
] as [Answer, string, string][])('%j is %s: %s', async (answer, code, message) => {
  const error = await failure(answer);
  expect(error.code).toBe(code);
  expect(error.message).toBe(message);
});

test('problem details name every field', async () => {
  const body = JSON.stringify({
    title: 'Not accepted',
    detail: 'The heading is missing.',
    errors: [
      { pointer: '/heading', detail: 'The heading is missing.' },
      { pointer: '/price', detail: 'Too low.' },
    ],
  });
  const error = await failure({ status: 422, body });
  expect(error.message).toBe('Market: The heading is missing.');
  expect(error.facts).toMatchObject({
    field: '/heading',
    details: [{ field: '/heading' }, { field: '/price', message: 'Too low.' }],
  });
});

test('how long to wait is taken from the answer', async () => {
  expect((await failure({ status: 429, headers: { 'retry-after': '7' } })).facts.retryAfterMs).toBe(7_000);
  expect((await failure({ status: 500 })).facts.retryAfterMs).toBeUndefined();
});

test('an answer that leads elsewhere is not followed', async () => {
  expect((await failure({ status: 302, headers: { location: 'http://127.0.0.1:1/' } })).code).toBe(
    'market-unreachable',
  );
});

test('a very long answer is cut before it is shown', async () => {
  expect((await failure({ status: 422, body: 'x'.repeat(50_000) })).message.length).toBeLessThan(400);
});

test('a pause is said in seconds or as a date, and nonsense is none', () => {
  const now = Date.parse('2026-11-26T10:00:00Z');
  expect(retryAfterOf('120', now)).toBe(120_000);
  expect(retryAfterOf('Thu, 26 Nov 2026 10:01:30 GMT', now)).toBe(90_000);
  expect(retryAfterOf('Thu, 26 Nov 2026 09:00:00 GMT', now)).toBeUndefined();
  expect(retryAfterOf('soon', now)).toBeUndefined();
  expect(retryAfterOf(null, now)).toBeUndefined();
});

test('a warning about the number of the day is known by its words or by its long pause', async () => {
  expect((await failure({ status: 429, body: 'Your allowance for today is used up' })).code).toBe('market-warned');
  expect((await failure({ status: 429, body: 'Stop', headers: { 'retry-after': '3600' } })).code).toBe('market-warned');
  expect((await failure({ status: 429, body: 'Stop', headers: { 'retry-after': '30' } })).code).toBe('market-busy');
});

test('nothing is sent when the lease is over', async () => {
  const session = openSession({
    base,
    marketName: 'Market',
    pacer: new Pacer(1_000_000),
    readAccess: async () => ({ kind: 'key', key: 'k-1' }),
    renewAccess: () => Promise.reject(new Error('no renewal')),
    mayStill: () => false,
  });
  await expect(session.send({ method: 'POST', path: '/x', body: {} })).rejects.toThrow('another worker');
  expect(asked).toHaveLength(0);
});

test.each([200, 422])('an answer of %i that breaks off in its middle leaves open what was done', async (status) => {
  const error = await failure({ status, body: '{"id":', headers: { 'content-length': '40' }, breaksOff: true });
  expect(error).toMatchObject({ code: 'market-unreachable', message: 'Market gave an answer that cannot be read' });
});
