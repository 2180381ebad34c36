import { database } from '../../../db/client';
import { loadAccounts } from '../accounts/load-accounts';
import { recheckListings } from './recheck-listings';

/** Where the marketplace sells no labels, prices that hold postage hang on boxes and on what carriers ask. */
export async function recheckPostage(): Promise<void> {
  for (const { id, pricing, compiled } of await loadAccounts(database())) {
    const { price, fees } = compiled.rules;
    const holdsPostage = pricing.addPostage || pricing.mode === 'keep' || price?.holds === true;
    if (holdsPostage && fees.labels.length === 0) await recheckListings(id);
  }
}
