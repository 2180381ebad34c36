import { request } from 'node:http';

/** One try to sign in, from an address of this machine’s own. */
const tryFrom = (settings, from, body, headers = {}) =>
  new Promise((resolve, reject) => {
    const text = JSON.stringify(body);
    const origin = `http://127.0.0.1:${settings.port}`;
    const asked = request(
      {
        host: '127.0.0.1',
        port: settings.port,
        localAddress: from,
        path: '/api/auth/sign-in/email',
        method: 'POST',
        headers: { 'content-type': 'application/json', origin, 'content-length': Buffer.byteLength(text), ...headers },
      },
      (answer) => {
        answer.resume();
        answer.on('end', () => resolve(answer.statusCode));
      },
    );
    asked.on('error', reject);
    asked.end(text);
  });

/** Passwords guessed for one person from many addresses, and for many from one that claims to be many. */
export async function guessing({ settings, email, password }) {
  const holes = [];
  const count = (list, status) => list.filter((one) => one === status).length;
  const spread = [];
  for (let at = 0; at < 40; at++)
    spread.push(
      await tryFrom(settings, `127.0.${1 + (at % 200)}.${1 + (at % 250)}`, { email, password: `guess-number-${at}` }),
    );
  if (count(spread, 429) < 30) holes.push(`only ${count(spread, 429)} of 40 guesses from 40 addresses had to wait`);
  const right = await tryFrom(settings, '127.0.0.9', { email, password });
  if (right !== 429) holes.push(`the right password in the middle of it was answered with ${right}`);
  const many = [];
  for (let at = 0; at < 60; at++)
    many.push(
      await tryFrom(
        settings,
        '127.9.9.9',
        { email: `nobody-${at}@grainhouse.example`, password: 'one-and-the-same' },
        { 'x-forwarded-for': `198.51.100.${at}`, 'x-real-ip': `198.51.100.${at}`, forwarded: `for=198.51.100.${at}` },
      ),
    );
  if (count(many, 429) < 20) holes.push(`only ${count(many, 429)} of 60 names tried from one address had to wait`);
  return {
    id: 'A5 guessing from many addresses',
    ok: holes.length === 0,
    text: `40 guesses for one person from 40 addresses, ${count(spread, 429)} had to wait; 60 names from one address that called itself another each time, ${count(many, 429)} had to wait; ${holes.length} holes`,
    holes,
  };
}
