import { createHash, randomBytes } from 'node:crypto';
import { config } from '../../../config';
import { NettingError } from '../../../core/errors';
import { connectorOf } from '../../../markets';
import type { Actor } from '../../access/actor';
import { seal } from '../../access/vault';
import { callbackPath, type Pending } from './pending-connect';

/** Begins connecting by OAuth: where to send the person, and what to remember meanwhile (sealed, for a cookie). */
export function startConnect(actor: Actor, market: string): { url: string; pending: string; state: string } {
  const connector = connectorOf(market);
  if (connector.access !== 'oauth') throw new NettingError('invalid', `${connector.name} is connected by a key`);
  const verifier = randomBytes(32).toString('base64url');
  const state = randomBytes(16).toString('base64url');
  const url = new URL(`${config.marketsUrl}/${market}/authorize`);
  url.search = new URLSearchParams({
    response_type: 'code',
    client_id: 'Netting',
    redirect_uri: `${config.baseUrl}${callbackPath}`,
    state,
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
  }).toString();
  const pending: Pending = { market, verifier, expires: Date.now() + 600_000, userId: actor.id };
  return { url: url.toString(), pending: seal({ ...pending, state }), state };
}
