import { database } from '../../../db/client';
import { loadAccounts } from '../accounts/load-accounts';
import { recheckListings } from './recheck-listings';

/** Computes every listing of these accounts anew; of all of them when none is named. */
export async function recheckAccounts(accounts: number[]): Promise<void> {
  const loaded = await loadAccounts(database(), accounts.length ? accounts : undefined);
  for (const { id } of loaded) await recheckListings(id);
}
