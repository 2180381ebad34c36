import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { account } from '../../db/schema';
import type { Access } from '../../markets';
import { askForTokens } from './request-tokens';
import { seal, unseal } from './vault';

/** Renews an account's tokens once, also when several ask at the same time: the row is locked, the second finds it done. */
export async function renew(accountId: number, stale: Access): Promise<Access> {
  return transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, accountId)).for('update');
    if (!row) throw new NettingError('not-found', 'The account is gone');
    const now = unseal<Access>(row.secrets);
    if (now.kind === 'key')
      throw new NettingError('market-auth', `${row.name}: the key is not accepted any more`, {
        fix: 'Connect the account again',
      });
    if (stale.kind === 'oauth' && now.accessToken !== stale.accessToken) return now;
    const fresh = await askForTokens(row.market, { grant_type: 'refresh_token', refresh_token: now.refreshToken });
    await tx
      .update(account)
      .set({ secrets: seal(fresh) })
      .where(eq(account.id, accountId));
    return fresh;
  });
}
