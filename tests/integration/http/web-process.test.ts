import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { request } from 'node:http';
import { join, resolve } from 'node:path';
import { newPerson, password } from '../../support/people';
import { stack, until } from '../../support/stack';

const root = resolve(__dirname, '..', '..', '..');
const port = Number(new URL(stack.base).port) + 5;
const base = `http://127.0.0.1:${port}`;
const shop = 'https://shop.example';
/** As a proxy on this machine, which speaks TLS to the outside, hands on what a browser asks. */
const handedOn = {
  'x-forwarded-for': '203.0.113.8, 127.0.0.1',
  'x-forwarded-proto': 'https',
  'x-forwarded-host': 'shop.example',
};
let child: ChildProcess;

beforeAll(async () => {
  child = spawn(process.execPath, ['--import', 'tsx', join(root, 'src/web/main.ts'), String(port), '127.0.0.1'], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', NETTING_URL: shop, NETTING_TRUSTED_PROXIES: '127.0.0.1' },
    stdio: 'ignore',
  });
  await until(
    () =>
      fetch(`${base}/api/alive`).then(
        (answer) => answer.ok,
        () => false,
      ),
    Boolean,
    60_000,
  );
}, 90_000);
afterAll(() => void child.kill('SIGKILL'));

test('behind TLS cookies are bound to the host, and browsers are told to come so again', async () => {
  const { email } = await newPerson('packer');
  const answer = await fetch(`${base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: shop, ...handedOn },
    body: JSON.stringify({ email, password }),
  });
  expect(answer.status).toBe(200);
  expect(answer.headers.get('strict-transport-security')).toMatch(/max-age=31536000/);
  const [cookie = ''] = answer.headers.getSetCookie().filter((one) => one.includes('session_token'));
  expect(cookie).toMatch(/^__Host-netting\.session_token=/);
  for (const part of [/;\s*secure/i, /;\s*httponly/i, /;\s*samesite=lax/i, /;\s*path=\/(;|$)/i])
    expect(cookie).toMatch(part);
  expect(cookie).not.toMatch(/;\s*domain=/i);
  const { body } = await mine({ cookie: cookie.split(';')[0] ?? '', ...handedOn });
  // The client is the last in the chain that is no proxy.
  expect(body.sessions.find((one) => one.isThis)?.address).toBe('203.0.113.8');
});

async function mine(headers: Record<string, string>) {
  const answer = await fetch(`${base}/api/v1/access`, { headers });
  expect(answer.status).toBe(200);
  return { body: (await answer.json()) as { sessions: { isThis: boolean; address: string }[] } };
}

test('a request that is under way is answered when the process is asked to end, a new one finds nobody', async () => {
  const sent = request(`${base}/api/v1/imports`, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${stack.token}`,
      'content-type': 'application/octet-stream',
      'x-file-name': 'slow.csv',
      'transfer-encoding': 'chunked',
    },
  });
  const answered = once(sent, 'response');
  sent.write('Stock number,Title\n');
  // It has been taken: another process could not be asked any more.
  await once(sent, 'socket');
  await fetch(`${base}/api/alive`, { headers: { connection: 'close' } });
  const ended = once(child, 'exit');
  child.kill('SIGTERM');
  await until(
    () =>
      fetch(`${base}/api/alive`, { headers: { connection: 'close' } }).then(
        () => false,
        () => true,
      ),
    Boolean,
  );
  sent.end('WP-1,Slow\n');
  const [answer] = await answered;
  expect(answer.statusCode).toBe(201);
  answer.resume();
  expect((await ended)[0]).toBe(0);
});
