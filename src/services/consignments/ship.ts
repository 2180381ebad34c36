import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { costWithWay, sharedByUnits, wayTotal } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import { unitsElsewhere } from '../../core/item';
import { homeBand, quotes } from '../../core/price';
import { database, transaction } from '../../db/client';
import { type ShipmentRow, shipment } from '../../db/schema';
import type { Actor } from '../access/actor';
import { readTariffs } from '../records/accounts/read-tariffs';
import { inboundOf } from './inbound-of';
import { loadConsignment, loadShipment, shipmentsOf } from './load-consignment';
import { moveUnits } from './move-units';
import { settleConsignment } from './settle-consignment';

const mostCost = 1_000_000_00;

export const shipSchema = z
  .object({
    carrier: z.string().trim().min(1, 'Who carries it').max(80),
    /** What it costs in all, in minor units of the shop's own currency. */
    postage: z.number().int().min(0).max(mostCost),
    /** A number for each box, in their order. */
    tracking: z.array(z.string().trim().max(60)).max(200),
  })
  .strict();

export const carrierQuoteSchema = z.object({
  carrier: z.string(),
  name: z.string(),
  amount: z.number(),
  each: z.array(z.number()),
});

/** What each carrier asks for all the boxes of a shipment, cheapest first; who does not take one of them is left out. */
export async function shipmentQuotes(id: number): Promise<z.infer<typeof carrierQuoteSchema>[]> {
  const row = await loadShipment(database(), id);
  const tariffs = await readTariffs();
  if (row.boxes.length === 0 || row.boxes.some((box) => box.grams === null)) return [];
  const all = row.boxes.map((box) =>
    quotes(tariffs, { grams: box.grams ?? 0, sides: box.millimetres, band: homeBand }),
  );
  return tariffs
    .flatMap(({ id: carrier, name }) => {
      const each = all.flatMap((some) => some.find((one) => one.carrier === carrier)?.amount ?? []);
      if (each.length < all.length) return [];
      return [{ carrier, name, amount: each.reduce((sum, one) => sum + one, 0), each }];
    })
    .sort((a, b) => a.amount - b.amount);
}

/**
 * Marks a shipment as shipped: there first, then here, where its units are on the way from then on and their cost bears what
 * the way costs. Broken off in between it is done again; they know it as shipped already.
 */
export async function shipShipment(
  actor: Actor,
  id: number,
  input: z.output<typeof shipSchema>,
): Promise<{ state: ShipmentRow['state'] }> {
  const row = await loadShipment(database(), id);
  if (row.state !== 'told') refuseUntold(row);
  if (input.tracking.length !== row.boxes.length || input.tracking.some((one) => one === ''))
    throw new NettingError('invalid', 'Every box needs its tracking number', { field: 'tracking' });
  const { session, inbound } = await inboundOf(row.accountId);
  await inbound.ship(session, row.remoteId, { carrier: input.carrier, tracking: input.tracking });
  return transaction(async (tx) => {
    const whole = await loadConsignment(tx, row.consignmentId, true);
    const now = await loadShipment(tx, id, true);
    if (now.state !== 'told') return { state: now.state };
    const costs = { ...now.costs, postage: input.postage };
    const borne = borneBy([{ units: now.units, costs }]);
    const gone = (await shipmentsOf(tx, row.consignmentId)).filter((one) => one.shippedAt !== null);
    const before = borneBy(gone);
    await moveUnits(tx, {
      actor,
      account: now.accountId,
      units: new Map(now.units.map((one) => [one.item, one.quantity])),
      from: 'aside',
      to: 'way',
      reason: 'shipped',
      note: `${whole.name}, ${now.warehouseName}`,
      also: (thing) => {
        const all = Math.max(0, thing.quantity) + unitsElsewhere(thing.elsewhere);
        const cost = costWithWay(thing.cost, { before: before.get(thing.id) ?? 0, now: borne.get(thing.id) ?? 0 }, all);
        return cost === thing.cost ? [] : [{ target: { item: thing.id }, field: 'cost', to: cost }];
      },
    });
    await tx
      .update(shipment)
      .set({
        state: 'shipped',
        carrier: input.carrier,
        tracking: input.tracking,
        costs,
        shippedAt: new Date(),
        version: sql`${shipment.version} + 1`,
      })
      .where(eq(shipment.id, id));
    await settleConsignment(tx, row.consignmentId);
    return { state: 'shipped' as const };
  });
}

/** What each item bears of what shipments cost, in minor units. */
function borneBy(shipments: readonly Pick<ShipmentRow, 'units' | 'costs'>[]): Map<number, number> {
  const borne = new Map<number, number>();
  for (const { units, costs } of shipments) {
    const shares = sharedByUnits(
      wayTotal(costs),
      units.map((one) => one.quantity),
    );
    for (const [index, { item }] of units.entries()) borne.set(item, (borne.get(item) ?? 0) + (shares[index] ?? 0));
  }
  return borne;
}

function refuseUntold(row: ShipmentRow): never {
  if (row.state === 'open')
    throw new NettingError('invalid', 'They do not know its boxes yet', { fix: 'Check and tell its boxes first' });
  throw new NettingError('too-late', row.state === 'off' ? 'It was called off' : 'It is on its way already');
}
