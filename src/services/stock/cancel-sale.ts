import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import { connectorOf } from '../../markets';
import type { Actor } from '../access/actor';
import { openAccount } from '../records/open-account';
import { storeCancelled } from './store-cancelled';

/** Calls an order off: there first, then here. One that was sold by hand is only taken back here. */
export async function cancelSale(actor: Actor, saleId: number): Promise<{ quantity: number | null; again: number }> {
  const [row] = await database().select().from(sale).where(eq(sale.id, saleId));
  if (!row) throw new NettingError('not-found', `There is no sale ${saleId}`);
  if (row.state === 'cancelled') throw new NettingError('too-late', 'This order is cancelled already');
  if (row.accountId !== null) {
    const { session, connector } = await openAccount(row.accountId);
    const order = await connector.cancelOrder(session, row.orderId);
    if (!order.cancelled)
      throw new NettingError('market-refused', `${connectorOf(connector.market).name} did not cancel the order`);
  }
  return storeCancelled(actor, saleId);
}
