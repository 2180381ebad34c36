import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import type { Executor } from '../../db/client';
import { type ConsignmentRow, consignment, type ShipmentRow, shipment, shipmentStates } from '../../db/schema';

export const shipmentStateSchema = z.enum(shipmentStates);

/** A consignment; held by the transaction where its end depends on it. */
export async function loadConsignment(db: Executor, id: number, isHeld = false): Promise<ConsignmentRow> {
  const query = db.select().from(consignment).where(eq(consignment.id, id));
  const [found] = await (isHeld ? query.for('update') : query);
  if (!found) throw new NettingError('not-found', 'There is no such consignment');
  return found;
}

/** Its shipments in their order. Who holds them holds the consignment first. */
export async function shipmentsOf(db: Executor, consignmentId: number, isHeld = false): Promise<ShipmentRow[]> {
  const query = db.select().from(shipment).where(eq(shipment.consignmentId, consignmentId)).orderBy(asc(shipment.id));
  return isHeld ? query.for('update') : query;
}

export async function loadShipment(db: Executor, id: number, isHeld = false): Promise<ShipmentRow> {
  const query = db.select().from(shipment).where(eq(shipment.id, id));
  const [found] = await (isHeld ? query.for('update') : query);
  if (!found) throw new NettingError('not-found', 'There is no such shipment');
  return found;
}
