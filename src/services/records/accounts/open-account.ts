import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { connectorOf } from '../../../markets';
import { sessionFor } from '../../access/market-session';
import { loadAccounts } from './load-accounts';

/** A session for a stored account, for what is done outside the worker. */
export const openAccount = async (id: number, urgent = false) => {
  const [found] = await loadAccounts(database(), [id]);
  if (!found) throw new NettingError('not-found', 'There is no such account');
  return {
    account: found,
    session: sessionFor(found.row, found.compiled.rules.pacing.perMinute, urgent),
    connector: connectorOf(found.row.market),
  };
};
