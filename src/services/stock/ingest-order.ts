import type { RemoteOrder } from '../../markets';
import { hearCancelled } from './ingest-cancellation';
import { recordSale } from './record-sale';

/** Records an order, or that it is off. */
export async function hearOrder(accountId: number, order: RemoteOrder): Promise<void> {
  await recordSale(accountId, order);
  if (order.cancelled) await hearCancelled(accountId, order.orderId);
}
