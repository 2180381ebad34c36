import { eq, sql } from 'drizzle-orm';
import type { Tx } from '../../db/client';
import { consignment } from '../../db/schema';
import { shipmentsOf } from './load-consignment';

/** What has become of a consignment as a whole, by its shipments. Its row is held by the caller. */
export async function settleConsignment(tx: Tx, id: number): Promise<void> {
  const shipments = await shipmentsOf(tx, id);
  const states = new Set(shipments.map((one) => one.state));
  const state =
    states.has('open') || states.has('told')
      ? ('packing' as const)
      : states.has('shipped') || states.has('received')
        ? ('shipped' as const)
        : states.has('settled')
          ? ('settled' as const)
          : ('off' as const);
  await tx
    .update(consignment)
    .set({ state, version: sql`${consignment.version} + 1` })
    .where(eq(consignment.id, id));
}
