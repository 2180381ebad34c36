import { database } from '../../../db/client';
import { asOfNow, type LoadedAccount, loadAccounts } from './load-accounts';

/** Accounts that were connected or let go meanwhile, and the day, are heard of after so many milliseconds. */
const freshMs = 3_000;
let kept: { accounts: LoadedAccount[]; at: number } | null = null;

/**
 * Every account, for what is done many times a second: loaded anew only where something that listings are computed with
 * has become another. Who holds items asks once more, by `asOfNow`.
 */
export async function accountsAtHand(): Promise<LoadedAccount[]> {
  const isFresh = kept !== null && Date.now() - kept.at < freshMs;
  if (kept && isFresh) {
    const accounts = await asOfNow(database(), kept.accounts);
    kept = { accounts, at: kept.at };
    return accounts;
  }
  const accounts = await loadAccounts(database());
  kept = { accounts, at: Date.now() };
  return accounts;
}
