import { z } from 'zod';
import { config } from '../../config';
import { NettingError } from '../../core/errors';
import { type Access, connectorOf } from '../../markets';

const tokenSchema = z.object({ access_token: z.string(), refresh_token: z.string(), expires_in: z.number() });

/** Trades a code or a refresh token for tokens at the marketplace's token address. */
export async function askForTokens(market: string, form: Record<string, string>): Promise<Access> {
  const answer = await fetch(`${config.marketsUrl}/${market}/token`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams(form),
    signal: AbortSignal.timeout(15_000),
    redirect: 'error',
  }).catch(() => null);
  const name = connectorOf(market).name;
  if (!answer || answer.status >= 500) throw new NettingError('market-unreachable', `${name} did not answer`);
  if (!answer.ok)
    throw new NettingError('market-auth', `${name} does not accept this access any more`, {
      fix: 'Connect the account again',
    });
  const tokens = tokenSchema.parse(await answer.json());
  return {
    kind: 'oauth',
    accessToken: tokens.access_token,
    refreshToken: tokens.refresh_token,
    expiresAt: new Date(Date.now() + tokens.expires_in * 1_000).toISOString(),
  };
}
