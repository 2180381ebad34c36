import type { RemoteOrder } from '../../markets';
import { ingestCancellation } from './ingest-cancellation';
import { recordSale } from './record-sale';

/** Records an order line by line, or that it is off. */
export async function ingestOrder(accountId: number, lines: readonly RemoteOrder[]): Promise<void> {
  for (const line of lines) await recordSale(accountId, line);
  const off = lines.find((one) => one.cancelled);
  if (off) await ingestCancellation(accountId, off.orderId);
}
