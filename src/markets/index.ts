import { NettingError } from '../core/errors';
import type { Connector } from './connector';
import { crateway } from './crateway/connector';
import { glintfeed } from './glintfeed/connector';
import { hallowick } from './hallowick/connector';
import { lanesend } from './lanesend/connector';
import { lotbarn } from './lotbarn/connector';
import { oakhand } from './oakhand/connector';
import { pippet } from './pippet/connector';
import { selasar } from './selasar/connector';
import { shopfront } from './shopfront/connector';
import { swishel } from './swishel/connector';
import { wallfolk } from './wallfolk/connector';

/** The only list of marketplaces that Netting speaks to. */
export const connectors: Connector[] = [
  hallowick,
  pippet,
  oakhand,
  swishel,
  lanesend,
  glintfeed,
  selasar,
  crateway,
  lotbarn,
  wallfolk,
  shopfront,
];

export function connectorOf(market: string): Connector {
  const found = connectors.find((connector) => connector.market === market);
  if (!found) throw new NettingError('not-found', `There is no marketplace “${market}”`);
  return found;
}

export type { Connector, OrderPage, RemoteListing, RemoteOffer, RemoteOrder } from './connector';
export type {
  Inbound,
  InboundPlan,
  InboundShipment,
} from './inbound';
export { Pacer } from './pacer';
export { type Access, LostLease, openSession, requestTimeoutMs, type Session } from './session';
