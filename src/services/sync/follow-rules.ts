import { and, eq } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadAccounts } from '../records/accounts/load-accounts';
import { isDrifted } from '../records/listings/is-drifted';
import { byRule, settleFields } from './settle-fields';

/** Applies an account's rules to what is open on it. */
export async function followRules(actor: Actor, accountId: number): Promise<number> {
  const db = database();
  const [account] = await loadAccounts(db, [accountId]);
  if (!account) return 0;
  const rows = await db
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.accountId, accountId), isDrifted))
    .limit(20_000);
  let settled = 0;
  for (const { id } of rows)
    settled += await transaction((tx) => settleFields(tx, actor, account, id, (open) => byRule(open)));
  return settled;
}
