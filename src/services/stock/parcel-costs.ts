import type { Content } from '../../core/listing';
import { type NetThing, netInput, sellerPays } from '../../core/listing/net';
import { convertBack } from '../../core/measure';
import { parcelOf } from '../../core/measure/parcel';
import { dispatchFee, netOf, packingOf } from '../../core/price';
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
    packing: Math.round(
      packingOf(account.packing, account.parcels.boxes, () =>
        parcelOf(thing, account.parcels.boxes, account.packaging),
      ) * order.parcelShare,
    ),
  };
}

/** What the warehouse of an account takes for sending one that was sold elsewhere, in the items' currency. */
export function sendingFee(serving: LoadedAccount, thing: NetThing): number {
  const longestMm = Math.max(0, ...[thing.lengthMm, thing.widthMm, thing.heightMm].map(Number));
  const fee = dispatchFee(serving.compiled.rules.fees, { weightGrams: thing.weightGrams, longestMm }) ?? 0;
  return serving.rate ? convertBack(fee, serving.rate) : fee;
}

/** The costs of a line of which a warehouse sends a part, for its fee. */
export function withSent(
  costs: ParcelCosts,
  { quantity }: Pick<RemoteOrder, 'quantity'>,
  { sent, fee }: { sent: number; fee: number },
): ParcelCosts {
  if (sent === 0) return costs;
  const own = (quantity - sent) / quantity;
  return { postage: Math.round(costs.postage * own) + sent * fee, packing: Math.round(costs.packing * own) };
}
