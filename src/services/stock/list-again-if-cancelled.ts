import { and, eq, gte } from 'drizzle-orm';
import type { Tx } from '../../db/client';
import { sale } from '../../db/schema';
import { listAgain } from './list-again';

/** It was still on its way out when an order was called off: it is made again as if it had ended before. */
export async function listAgainIfCancelled(tx: Tx, itemId: number, listingId: number, since: Date): Promise<void> {
  const [off] = await tx
    .select({ id: sale.id })
    .from(sale)
    .where(and(eq(sale.itemId, itemId), eq(sale.state, 'cancelled'), gte(sale.cancelledAt, since)))
    .limit(1);
  if (off) await listAgain(tx, itemId, listingId);
}
