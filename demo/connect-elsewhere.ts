import { config } from '../src/config';
import { connectorOf } from '../src/markets';
import type { Actor } from '../src/services/access/actor';
import { connectByKey } from '../src/services/accounts/connect/connect-by-key';
import { finishConnect } from '../src/services/accounts/connect/finish-connect';
import { startConnect } from '../src/services/accounts/connect/start-connect';
import { allowAccess, readKey } from './marketplaces';

/** Connects a seller's accounts the way a person does: on the consent page, or with the key from its page. */
export async function connectElsewhere(actor: Actor, markets: readonly string[], seller: string): Promise<number[]> {
  const ids: number[] = [];
  for (const market of markets) {
    if (connectorOf(market).access === 'key') {
      const key = await readKey(`${config.marketsUrl}/${market}/account/key`, seller);
      ids.push((await connectByKey(actor, { market, key })).accountId);
    } else {
      const { url, pending } = startConnect(actor, market);
      ids.push((await finishConnect(actor, pending, await allowAccess(url, seller))).accountId);
    }
  }
  return ids;
}
