import { NettingError } from '../../core/errors';
import type { Inbound } from '../../markets';
import { openAccount } from '../records/accounts/open-account';

/** The way into the warehouses of an account's marketplace. */
export async function inboundOf(accountId: number) {
  const { session, connector, account } = await openAccount(accountId);
  const inbound: Inbound | undefined = connector.inbound;
  if (!inbound)
    throw new NettingError('invalid', `${connector.name} has no warehouses that stock is sent to`, {
      field: 'account',
    });
  return { session, inbound, account, name: connector.name };
}
