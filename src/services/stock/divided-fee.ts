import type { Content } from '../../core/listing';
import { type NetThing, netInput } from '../../core/listing/net';
import { feeKinds, feesOf } from '../../core/price';
import type { RemoteOrder } from '../../markets';
import type { LoadedAccount } from '../records/accounts/load-accounts';

/** What a marketplace charged for a line of an order, by what its fee table says it is for; in its currency. */
export function dividedFee(
  account: LoadedAccount | undefined,
  order: RemoteOrder,
  content: Content,
  thing: NetThing,
): { feePayment: number; feeHandling: number; feeOther: number } | undefined {
  if (!account) return undefined;
  const { fees, ...input } = netInput(account, content, thing, 0);
  const reckoned = feesOf(fees, { ...input, total: order.total - order.discount + order.buyerPostage });
  // What is sent or made by the piece is charged by the piece.
  const { payment, handling, other } = feeKinds(order.fee, {
    ...reckoned,
    handling: reckoned.handling * order.quantity,
  });
  return { feePayment: payment, feeHandling: handling, feeOther: other };
}
