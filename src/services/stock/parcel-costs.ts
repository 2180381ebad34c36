import type { Content } from '../../core/listing';
import { type NetThing, netInput, sellerPays } from '../../core/listing/net';
import { convertBack } from '../../core/measure';
import { netOf } from '../../core/price';
import type { RemoteOrder } from '../../markets';
import type { LoadedAccount } from '../records/accounts/load-accounts';

export type ParcelCosts = { postage: number; packing: number };

/**
 * What a line's part of the parcel costs the seller, in the items' currency: the label or the carrier's price where the
 * seller pays it, else what the buyer paid for it. Reckoned as every net is, until what it cost is written down.
 */
export function parcelCosts(
  account: LoadedAccount | undefined,
  order: RemoteOrder,
  content: Content,
  thing: NetThing,
): ParcelCosts {
  // Fetched: nothing is packed and nothing is sent.
  if (!account || order.collected) return { postage: 0, packing: 0 };
  const home = (amount: number) => (account.rate ? convertBack(amount, account.rate) : amount);
  const isOurs = sellerPays(account.compiled.rules, content);
  const { postage } = netOf({ ...netInput(account, content, thing, 0), price: order.unitPrice });
  return {
    // What they billed for their label is known; else it is reckoned.
    postage: order.label
      ? home(order.label)
      : isOurs
        ? Math.round(home(postage) * order.parcelShare)
        : home(order.buyerPostage),
    packing: Math.round(account.packingCost * order.parcelShare),
  };
}
