import { and, eq, ne } from 'drizzle-orm';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import { systemActor } from '../access/actor';
import { storeCancelled } from './store-cancelled';

/** Heard from a marketplace that an order is off: every line of it. */
export async function ingestCancellation(accountId: number, orderId: string): Promise<void> {
  const rows = await database()
    .select({ id: sale.id })
    .from(sale)
    .where(and(eq(sale.accountId, accountId), eq(sale.orderId, orderId), ne(sale.state, 'cancelled')));
  for (const row of rows) await storeCancelled(systemActor, row.id);
}
