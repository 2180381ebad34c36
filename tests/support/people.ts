import type { Role } from '../../src/core/access';
import { alone, call, stack } from './stack';

export const password = 'quiet-harbour-71';
let count = 0;

const send = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${stack.base}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: stack.base, ...alone, ...headers },
    body: JSON.stringify(body),
    redirect: 'manual',
  });

/** What a page sends to the sign-in, with the cookies that it has. */
export const toSignIn = (place: string, body: unknown, cookie = '') => send(`/api/auth/${place}`, body, { cookie });
export const cookiesOf = (answer: Response): string =>
  answer.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');

/** Somebody who is signed in with a cookie. */
export type Signed = { cookie: string; email: string; name: string };

export const codeOf = (link: string): string => link.split('/').at(-1) ?? '';
export const inviteAs = async (role: Role): Promise<string> =>
  (await call<{ link: string }>('POST', '/people/invite', { role, forWhom: `Somebody ${++count}` })).body.link;

export async function joinBy(link: string, email: string, name: string): Promise<number> {
  return (await send('/api/invited', { code: codeOf(link), email, name, password })).status;
}

export async function signIn(email: string, word = password): Promise<string> {
  const answer = await toSignIn('sign-in/email', { email, password: word });
  if (answer.status !== 200) throw new Error(`${answer.status}: ${await answer.text()}`);
  return cookiesOf(answer);
}

/** A new person of the shop. */
export async function newPerson(role: Role): Promise<Signed> {
  const name = `Person ${Date.now().toString(36)} ${++count}`;
  const email = `person-${process.pid}-${Date.now()}-${count}@grainhouse.example`;
  const status = await joinBy(await inviteAs(role), email, name);
  if (status !== 201) throw new Error(`joining answered ${status}`);
  return { cookie: await signIn(email), email, name };
}

/** A token that may do no more than this. */
export const tokenAs = async (role: Role): Promise<string> =>
  (await call<{ token: string }>('POST', '/tokens', { name: `as ${role} ${++count}`, role })).body.token;

/** Calls as somebody else than the demo's owner: with a token or a cookie. */
export async function callAs<T = Record<string, unknown>>(
  who: { token: string } | { cookie: string },
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: T }> {
  const answer = await fetch(`${stack.base}/api/v1${path}`, {
    method,
    headers: {
      origin: stack.base,
      ...alone,
      ...('token' in who ? { authorization: `Bearer ${who.token}` } : { cookie: who.cookie }),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return { status: answer.status, body: (await answer.json()) as T };
}
