import { eq, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { consignment, shipment } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadConsignment, loadShipment } from './load-consignment';
import { moveUnits } from './move-units';
import { settleConsignment } from './settle-consignment';

/** Calls a shipment off that has not gone yet: what was set aside for it is for sale here again. */
export async function callShipmentOff(actor: Actor, id: number): Promise<void> {
  const { consignmentId } = await loadShipment(database(), id);
  await transaction(async (tx) => {
    const whole = await loadConsignment(tx, consignmentId, true);
    const row = await loadShipment(tx, id, true);
    if (row.state === 'off') return;
    if (row.state !== 'open' && row.state !== 'told')
      throw new NettingError('too-late', 'It is on its way: it cannot be called off');
    await moveUnits(tx, {
      actor,
      account: row.accountId,
      units: new Map(row.units.map((one) => [one.item, one.quantity])),
      from: 'aside',
      to: 'here',
      reason: 'set-aside',
      note: `${whole.name}, called off`,
    });
    await tx
      .update(shipment)
      .set({ state: 'off', version: sql`${shipment.version} + 1` })
      .where(eq(shipment.id, id));
    await settleConsignment(tx, consignmentId);
  });
}

/** Calls off a consignment for which no plan was taken yet: nothing of it was set aside. */
export async function callOff(id: number): Promise<void> {
  await transaction(async (tx) => {
    const row = await loadConsignment(tx, id, true);
    if (row.state === 'off') return;
    if (row.state !== 'choosing') throw new NettingError('too-late', 'A plan is taken: call off its shipments instead');
    await tx
      .update(consignment)
      .set({ state: 'off', version: sql`${consignment.version} + 1` })
      .where(eq(consignment.id, id));
  });
}
