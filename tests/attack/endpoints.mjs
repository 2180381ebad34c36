import { exampleOf, hostileIds, hostileTexts, oddValues, placesIn, whatItTells, withAt } from './values.mjs';

const roles = ['owner', 'seller', 'packer'];
const rank = { packer: 0, seller: 1, owner: 2 };
const atOnce = 4;
/** So long one request may take; a `sleep` that got through takes longer. */
const longestMs = 5_500;
/** What would end the attack itself: it is attacked with names of nobody and of what is not there, like all others. */
const perBody = 5;

/** The endpoints of the description. */
function endpointsOf(description) {
  return Object.entries(description.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, told]) => ({
      path,
      method: method.toUpperCase(),
      role: /role (\w+)/.exec(told.description)?.[1] ?? 'owner',
      query: (told.parameters ?? []).filter((one) => one.in === 'query'),
      body: told.requestBody?.content?.['application/json']?.schema ?? null,
      isFile: Boolean(told.requestBody && !told.requestBody.content['application/json']),
    })),
  );
}

/**
 * Every endpoint, as nobody and in each role, with the numbers of others, values of the wrong kind and at the ends, and
 * texts that would do harm in SQL, HTML, templates, headers, paths, tables, patterns and prototypes.
 */
export async function attackEndpoints({ base, call, tokens, random }) {
  const description = await (
    await fetch(`${base}/api/openapi.json`, { headers: { authorization: `Bearer ${tokens.owner}` } })
  ).json();
  const all = endpointsOf(description);
  const [{ id: item }] = (await call('GET', '/items?limit=1')).body.items;
  const [{ id: account }] = (await call('GET', '/accounts')).body.accounts;
  const known = { account, item, ids: item };
  const holes = [];
  const tried = { requests: 0, byStatus: {} };
  let slowest = 0;
  const pick = (list) => list[Math.floor(random() * list.length)];

  async function ask(who, { method, path }, what, { query = '', body, expected }) {
    const began = performance.now();
    const headers = {
      ...(tokens[who] ? { authorization: `Bearer ${tokens[who]}` } : {}),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
    };
    const name = `${method} ${path}${query.slice(0, 80)} as ${who}, ${what}`;
    try {
      const answer = await fetch(`${base}${path}${query}`, {
        method,
        headers,
        body,
        signal: AbortSignal.timeout(20_000),
      });
      // Events have no end; what a stream tells first is enough.
      const isStream = answer.headers.get('content-type')?.startsWith('text/event-stream');
      const text = isStream ? '' : await answer.text();
      if (isStream) await answer.body?.cancel();
      const ms = performance.now() - began;
      slowest = Math.max(slowest, ms);
      tried.requests++;
      tried.byStatus[answer.status] = (tried.byStatus[answer.status] ?? 0) + 1;
      if (expected && !expected.includes(answer.status))
        holes.push(`${name}: ${answer.status} instead of ${expected.join(' or ')}`);
      if (answer.status >= 500) holes.push(`${name}: ${answer.status} ${text.slice(0, 200)}`);
      if (answer.headers.has('x-injected')) holes.push(`${name}: wrote a header`);
      if (ms > longestMs) holes.push(`${name}: took ${Math.round(ms)} ms`);
      if (answer.status >= 400)
        for (const told of whatItTells(text)) holes.push(`${name}: ${told}: ${text.slice(0, 200)}`);
    } catch (error) {
      holes.push(`${name}: ${error.message}`);
    }
  }

  /** What is asked of one endpoint. */
  async function attack(one) {
    const nowhere = one.path.replace(/\{\w+\}/g, '999999999');
    const example = one.body ? exampleOf(one.body, known) : undefined;
    const asBody = (value) => (one.body ? JSON.stringify(value) : undefined);
    const at = { method: one.method, path: nowhere };
    await ask('nobody', at, 'not signed in', { body: asBody(example), expected: [401] });
    for (const who of roles) {
      if (rank[who] < rank[one.role]) {
        await ask(who, at, 'above the role', { body: asBody(example), expected: [403] });
        continue;
      }
      // Of what is there, as deep as one gets; nothing is ended so that there is something to attack until the end.
      const there = one.path.replace(
        /^(\/api\/v1\/(item|account)s)\/\{id\}/,
        (_, place, kind) => `${place}/${known[kind]}`,
      );
      if (there !== one.path && one.method !== 'DELETE')
        await ask(who, { method: one.method, path: there.replace(/\{\w+\}/g, '999999999') }, 'of what is there', {
          body: asBody(example),
        });
      if (/\{/.test(one.path)) {
        // A number that is nobody’s, or that of another shop: nothing is there.
        const path = one.path.replace(/\{\w+\}/g, pick(hostileIds));
        await ask(who, { method: one.method, path }, 'with a number of others', { body: asBody(example) });
      }
      for (const { name } of one.query) {
        const value = encodeURIComponent(
          random() < 0.7 ? pick(hostileTexts).toWellFormed() : String(pick(oddValues)).slice(0, 3_000),
        );
        await ask(who, at, `${name} hostile`, { query: `?${name}=${value}`, body: asBody(example) });
      }
      if (one.isFile) continue;
      if (!one.body) continue;
      const places = placesIn(example);
      for (let round = 0; round < perBody; round++) {
        const place = pick(places);
        const isText = random() < 0.55;
        const value = isText ? pick(hostileTexts) : pick(oddValues);
        await ask(who, at, `${place.join('.') || 'the body'} ${isText ? 'a hostile text' : 'of another kind'}`, {
          body: asBody(withAt(example, place, value)),
        });
      }
      const polluting = `{"__proto__":{"isAdmin":true},"constructor":{"prototype":{"isAdmin":true}},${JSON.stringify(example ?? {}).slice(1)}`;
      await ask(who, at, 'with keys of prototypes', { body: polluting.replace(/,}$/, '}') });
      await ask(who, at, 'with half a body', { body: '{"a":' });
      await ask(who, at, 'nested deeply', { body: `${'['.repeat(20_000)}${']'.repeat(20_000)}` });
    }
  }

  const left = [...all];
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      for (let one = left.pop(); one; one = left.pop()) await attack(one);
    }),
  );
  const answers = Object.entries(tried.byStatus)
    .map(([status, count]) => `${count} × ${status}`)
    .join(', ');
  return {
    id: 'A1 every endpoint, as nobody and in each role',
    ok: holes.length === 0 && all.length > 200,
    text: `${all.length} endpoints, ${tried.requests} requests (${answers}), slowest ${Math.round(slowest)} ms, ${holes.length} holes`,
    holes,
  };
}
