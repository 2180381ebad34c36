import { createHash, randomBytes } from 'node:crypto';
import { allowAccess } from '../../demo/marketplaces';
import { type Access, connectorOf, openSession, Pacer, type Session } from '../../src/markets';
import { control, stack } from './stack';

/** A shop of its own on a marketplace, with room to breathe, and a conversation in its name. */
export async function openSeller(
  market: string,
  name: string,
  exceptions: Record<string, unknown> = {},
): Promise<Session> {
  const made = await control(market, 'sellers', {
    name,
    exceptions: { perMinute: 1_000_000, newPerDay: 1_000_000, ...exceptions },
  });
  const access = connectorOf(market).access === 'key' ? keyOf(made) : await tokensOf(market, name);
  return openSession({
    base: `${stack.markets}/${market}/api`,
    marketName: connectorOf(market).name,
    pacer: new Pacer(10_000_000),
    readAccess: async () => access,
    renewAccess: async () => access,
  });
}

const keyOf = (made: Record<string, unknown>): Access => ({ kind: 'key', key: String(made.apiKey) });

async function tokensOf(market: string, seller: string): Promise<Access> {
  const verifier = randomBytes(32).toString('base64url');
  const redirect = 'http://127.0.0.1:1/back';
  const query = new URLSearchParams({
    response_type: 'code',
    client_id: 'test',
    redirect_uri: redirect,
    state: 's',
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
  });
  const back = await allowAccess(`${stack.markets}/${market}/authorize?${query}`, seller);
  const answer = await fetch(`${stack.markets}/${market}/token`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({
      grant_type: 'authorization_code',
      code: back.code ?? '',
      redirect_uri: redirect,
      code_verifier: verifier,
    }),
  });
  const tokens = (await answer.json()) as { access_token: string; refresh_token: string };
  return {
    kind: 'oauth',
    accessToken: tokens.access_token,
    refreshToken: tokens.refresh_token,
    expiresAt: new Date(Date.now() + 3_000_000).toISOString(),
  };
}
