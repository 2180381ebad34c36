import { config } from '../../../config';
import { NettingError } from '../../../core/errors';
import { connectorOf } from '../../../markets';
import type { Actor } from '../../access/actor';
import { askForTokens } from '../../access/request-tokens';
import { unseal } from '../../access/vault';
import { callbackPath, type Pending } from './pending-connect';
import { type StoredAccount, storeAccount } from './store-account';

/** Ends connecting by OAuth with what the marketplace sent back; the state must be the one that was begun here. */
export async function finishConnect(
  actor: Actor,
  sealed: string,
  given: { code?: string; state?: string; error?: string },
): Promise<StoredAccount> {
  let pending: Pending & { state: string };
  try {
    pending = unseal<Pending & { state: string }>(sealed);
  } catch {
    throw new NettingError('not-allowed', 'This connection was not begun here', { fix: 'Begin again' });
  }
  if (pending.state !== given.state || pending.expires < Date.now() || pending.userId !== actor.id)
    throw new NettingError('not-allowed', 'This connection was begun too long ago or elsewhere', {
      fix: 'Begin again',
    });
  if (given.error || !given.code)
    throw new NettingError('not-allowed', `${connectorOf(pending.market).name} was not allowed to connect`, {
      fix: 'Begin again and allow it',
    });
  const access = await askForTokens(pending.market, {
    grant_type: 'authorization_code',
    code: given.code,
    redirect_uri: `${config.baseUrl}${callbackPath}`,
    code_verifier: pending.verifier,
  });
  return storeAccount(actor, pending.market, access);
}
