import { z } from 'zod';
import { withheldField, withoutCosts } from '../core/access';
import { NettingError } from '../core/errors';
import { isWellFormed } from '../core/json';
import { actorOf } from '../services/access/identify-actor';
import { once } from '../services/access/once';
import { done, type Endpoint } from './endpoint';
import { endpoints } from './endpoints';
import { fromHere } from './from-here';
import { timed } from './metrics';
import { problemOf } from './problem';
import { readLimited } from './read-limited';
import { notFor, requireRole, seesCosts } from './require-role';

const mostBodyBytes = 6_000_000;
const routes = endpoints.map((one: Endpoint) => ({
  one,
  pattern: new RegExp(`^${one.path.replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`),
}));

/** A key under which a command is carried out once, however often it comes (Idempotency-Key, an IETF draft). */
const keyShape = /^[\w-]{16,80}$/;

async function bodyOf(request: Request, one: Endpoint): Promise<unknown> {
  if (!one.body) return undefined;
  if (!request.headers.get('content-type')?.includes('application/json'))
    throw new NettingError('invalid', 'Send JSON, with the content type application/json');
  const text = (await readLimited(request, mostBodyBytes)).toString('utf8');
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new NettingError('invalid', 'The body is not valid JSON');
  }
  // Only an escape can say half of a character; where none is written nothing has to be looked through.
  if (/\\u[dD][89a-fA-F]/.test(text) && !isWellFormed(parsed))
    throw new NettingError('invalid', 'A text holds half of a character (a lone surrogate)');
  return one.body.parse(parsed);
}

/** Answers a request of the HTTP interface, and keeps how long that took. */
export async function handle(request: Request): Promise<Response> {
  const began = performance.now();
  const asked = { path: 'none' };
  const answer = await answered(request, asked);
  timed(request.method, asked.path, answer.status, performance.now() - began);
  return answer;
}

async function answered(request: Request, asked: { path: string }): Promise<Response> {
  try {
    const url = new URL(request.url);
    const path = url.pathname.replace(/^\/api\/v1/, '');
    const hits = routes.flatMap(({ one, pattern }) => {
      const hit = pattern.exec(path);
      return hit ? [{ one, hit }] : [];
    });
    const who = await actorOf(request.headers);
    if (!who) throw new NettingError('not-signed-in', 'Sign in, or send an API token', { fix: 'Sign in' });
    const found = hits.find(({ one }) => one.method === request.method);
    if (!found)
      throw new NettingError(
        'not-found',
        hits.length ? `${request.method} is not possible here` : 'There is nothing at this address',
      );
    asked.path = found.one.path;
    if (request.method !== 'GET' && !who.byToken && !fromHere(request))
      throw new NettingError('not-allowed', 'This request did not come from Netting itself');
    requireRole(who, found.one.role);
    const params = Object.fromEntries(
      Object.entries(found.hit.groups ?? {}).map(([name, value]) => [
        name,
        z.coerce.number().int().positive().parse(value),
      ]),
    );
    const query = found.one.query?.parse(Object.fromEntries(url.searchParams));
    const body = await bodyOf(request, found.one);
    const asks = found.one.keepsCosts ? query : [query, body];
    const withheld = seesCosts(who.role) ? null : withheldField(asks);
    if (withheld) throw notFor(who.role, 'ask for, or change, what was paid', withheld);
    const run = () => found.one.run({ actor: who.actor, who, params, query, body, request });
    const told = (result: unknown) => {
      const shown = seesCosts(who.role) ? result : withoutCosts(result);
      return found.one.answer === done ? { ok: true } : shown;
    };
    const status = request.method === 'POST' ? 201 : 200;
    const key = request.headers.get('idempotency-key');
    if (key !== null && !keyShape.test(key))
      throw new NettingError('invalid', 'An Idempotency-Key has 16 to 80 letters, digits, _ or -');
    const { media, takesFile, takesPicture, isShownOnce = false } = found.one;
    // Files and streams are not compared, and what only asks needs no key.
    if (key !== null && request.method !== 'GET' && !media && !takesFile && !takesPicture) {
      const command = {
        key,
        whose: who.actor.id,
        asked: JSON.stringify([request.method, path, url.search, body ?? null]),
      };
      const answer = await once(command, !isShownOnce, async () => ({ status, body: await run() }));
      return Response.json(told(answer.body), { status: answer.status, headers: { 'cache-control': 'no-store' } });
    }
    const result = await run();
    if (result instanceof Response) return result;
    return Response.json(told(result), { status, headers: { 'cache-control': 'no-store' } });
  } catch (error) {
    return problemOf(error);
  }
}
