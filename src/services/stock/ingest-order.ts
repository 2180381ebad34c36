import type { RemoteOrder } from '../../markets';
import { ingestCancellation } from './ingest-cancellation';
import { recordSale } from './record-sale';

/** Records an order, or that it is off. */
export async function ingestOrder(accountId: number, order: RemoteOrder): Promise<void> {
  await recordSale(accountId, order);
  if (order.cancelled) await ingestCancellation(accountId, order.orderId);
}
