import { and, eq, ne } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import { connectorOf } from '../../markets';
import type { Actor } from '../access/actor';
import { openAccount } from '../records/accounts/open-account';
import { patiently } from '../records/accounts/patiently';
import { storeCancelled } from './store-cancelled';

/**
 * Calls an order off: there first, then here, with everything that was bought in it. One that was sold by hand is only
 * taken back here.
 */
export async function cancelSale(actor: Actor, saleId: number): Promise<{ quantity: number | null; again: number }> {
  const db = database();
  const [row] = await db.select().from(sale).where(eq(sale.id, saleId));
  if (!row) throw new NettingError('not-found', `There is no sale ${saleId}`);
  if (row.state === 'cancelled') throw new NettingError('too-late', 'This order is cancelled already');
  if (row.accountId === null) return storeCancelled(actor, saleId);
  const { session, connector } = await openAccount(row.accountId);
  const { orderId } = row;
  const lines = await patiently(() => connector.cancelOrder(session, orderId));
  if (!lines.some((one) => one.cancelled))
    throw new NettingError('market-refused', `${connectorOf(connector.market).name} did not cancel the order`);
  const others = await db
    .select({ id: sale.id })
    .from(sale)
    .where(and(eq(sale.accountId, row.accountId), eq(sale.orderId, row.orderId), ne(sale.id, saleId)));
  for (const one of others) await storeCancelled(actor, one.id);
  return storeCancelled(actor, saleId);
}
