import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { type Access, connectorOf, openSession, Pacer, type Session } from '../src/markets';
import { contentElsewhere, type Listed, sellerElsewhere, shotOf } from './elsewhere';
import { allowAccess, control } from './marketplaces';

/** A conversation in the name of a seller who is made for it, with room to breathe. */
export async function openSellerElsewhere(
  marketsUrl: string,
  market: string,
  name: string,
  more: Record<string, unknown> = {},
): Promise<Session> {
  const exceptions = { perMinute: 1_000_000, newPerDay: 1_000_000, ...more };
  const made = await control(marketsUrl, market, 'sellers', { name, exceptions });
  const access: Access =
    connectorOf(market).access === 'key'
      ? { kind: 'key', key: String(made.apiKey) }
      : await tokensOf(marketsUrl, market, name);
  return openSession({
    base: `${marketsUrl}/${market}/api`,
    marketName: connectorOf(market).name,
    pacer: new Pacer(10_000_000),
    readAccess: async () => access,
    renewAccess: async () => access,
  });
}

async function tokensOf(marketsUrl: string, market: string, seller: string): Promise<Access> {
  const verifier = randomBytes(32).toString('base64url');
  const redirect = 'http://127.0.0.1:1/back';
  const query = new URLSearchParams({
    response_type: 'code',
    client_id: 'elsewhere',
    redirect_uri: redirect,
    state: 's',
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
  });
  const back = await allowAccess(`${marketsUrl}/${market}/authorize?${query}`, seller);
  const answer = await fetch(`${marketsUrl}/${market}/token`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({
      grant_type: 'authorization_code',
      code: back.code ?? '',
      redirect_uri: redirect,
      code_verifier: verifier,
    }),
  });
  const tokens = (await answer.json()) as { access_token: string; refresh_token: string }; // the token endpoint's answer
  const expiresAt = new Date(Date.now() + 3_000_000).toISOString();
  return { kind: 'oauth', accessToken: tokens.access_token, refreshToken: tokens.refresh_token, expiresAt };
}

const sideBySide = 6;

/**
 * Puts listings up on their marketplaces in a seller's name, as a person or another program would have.
 * @returns their numbers there, in the order of `listed`
 */
export async function listElsewhere(marketsUrl: string, seller: string, listed: readonly Listed[]): Promise<string[]> {
  const markets = [...new Set(listed.map((one) => one.market))];
  const sellers = new Map(
    await Promise.all(
      markets.map(async (market) => {
        const session = await openSellerElsewhere(marketsUrl, market, seller);
        const account = sellerElsewhere(market, await connectorOf(market).readRules(session));
        return [market, { session, account }] as const;
      }),
    ),
  );
  const numbers: string[] = listed.map(() => '');
  const open = listed.map((one, at) => ({ one, at }));
  const work = async () => {
    for (let next = open.shift(); next; next = open.shift()) {
      const { one, at } = next;
      const there = sellers.get(one.market);
      if (!there) continue;
      const connector = connectorOf(one.market);
      const photoIds: string[] = [];
      for (const shot of one.shots)
        photoIds.push(await connector.uploadPhoto(there.session, await shotOf(one.thing, shot)));
      const content = contentElsewhere(one, there.account);
      const made = await connector.create(there.session, { content, photoIds, idempotencyKey: randomUUID() });
      numbers[at] = made.remoteId;
    }
  };
  await Promise.all(Array.from({ length: sideBySide }, work));
  return numbers;
}
