import { and, eq, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { shipment } from '../../db/schema';
import { faultsOf, usualLimits } from './box-faults';
import { inboundOf } from './inbound-of';
import { loadConsignment, loadShipment } from './load-consignment';

/** Checks the boxes of a shipment and tells the marketplace what is in them; it gives each its code. */
export async function tellBoxes(id: number): Promise<{ boxes: number }> {
  const db = database();
  const row = await loadShipment(db, id);
  if (row.state !== 'open' && row.state !== 'told')
    throw new NettingError('too-late', row.state === 'off' ? 'It was called off' : 'It is on its way already');
  const whole = await loadConsignment(db, row.consignmentId);
  const faults = await faultsOf(db, row, whole.limits ?? usualLimits);
  if (faults.length)
    throw new NettingError('invalid', faults[0]?.message ?? 'The boxes are not right', {
      field: 'boxes',
      details: faults.map((one) => ({ field: one.box === null ? 'boxes' : `box ${one.box}`, message: one.message })),
    });
  const { session, inbound } = await inboundOf(row.accountId);
  const told = await inbound
    .tellBoxes(
      session,
      row.remoteId,
      row.boxes.map(({ grams, millimetres, contents }) => ({
        grams: grams ?? 0,
        millimetres: millimetres ?? [0, 0, 0],
        contents: Object.entries(contents).map(([sku, quantity]) => ({ sku, quantity })),
      })),
    )
    .catch(async (error: unknown) => {
      if (error instanceof NettingError && error.code === 'market-blocked')
        await db.update(shipment).set({ isClosed: true }).where(eq(shipment.id, id));
      throw error;
    });
  // What was packed while they were told is not what they know: it is told anew.
  const [{ affectedRows }] = await db
    .update(shipment)
    .set({ state: 'told', boxCodes: told.boxCodes, isClosed: told.isClosed, version: sql`${shipment.version} + 1` })
    .where(and(eq(shipment.id, id), eq(shipment.version, row.version)));
  if (affectedRows !== 1)
    throw new NettingError('conflict', 'Somebody packed into this shipment meanwhile', {
      fix: 'Look at its boxes, then tell them anew',
    });
  return { boxes: told.boxCodes.length };
}
