import { and, asc, eq, inArray, isNull, lt, or } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { type ShipmentRow, shipment } from '../../db/schema';
import { type Actor, systemActor } from '../access/actor';
import { inboundOf } from './inbound-of';
import { keepTold } from './keep-told';
import { loadShipment } from './load-consignment';

const askAgainMs = 10 * 60_000;

/** Asks what has become of a shipment that is on its way, and keeps it. */
export async function followShipment(actor: Actor, id: number): Promise<{ state: ShipmentRow['state'] }> {
  const row = await loadShipment(database(), id);
  if (row.state !== 'shipped' && row.state !== 'received') return { state: row.state };
  const { session, inbound, account } = await inboundOf(row.accountId);
  const told = await inbound.read(session, row.remoteId);
  return keepTold(actor, id, told, account);
}

/** The same of those that nobody asked about for a while. */
export async function followDue(): Promise<number> {
  const rows = await database()
    .select({ id: shipment.id })
    .from(shipment)
    .where(
      and(
        inArray(shipment.state, ['shipped', 'received']),
        or(isNull(shipment.lookedAt), lt(shipment.lookedAt, new Date(Date.now() - askAgainMs))),
      ),
    )
    .orderBy(asc(shipment.lookedAt))
    .limit(20);
  for (const { id } of rows) {
    // Whoever does not answer now is asked at the next turn; the others are not held up.
    await followShipment(systemActor, id).catch(async (error: unknown) => {
      if (!(error instanceof NettingError)) throw error;
      await database().update(shipment).set({ lookedAt: new Date() }).where(eq(shipment.id, id));
    });
  }
  return rows.length;
}
