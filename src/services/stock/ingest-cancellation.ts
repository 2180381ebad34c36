import { and, eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import { systemActor } from '../access/actor';
import { storeCancelled } from './store-cancelled';

/** Heard from a marketplace that an order is off. */
export async function ingestCancellation(accountId: number, orderId: string): Promise<void> {
  const [row] = await database()
    .select({ id: sale.id })
    .from(sale)
    .where(and(eq(sale.accountId, accountId), eq(sale.orderId, orderId)));
  if (row) await storeCancelled(systemActor, row.id);
}
