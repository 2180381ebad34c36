import { randomUUID } from 'node:crypto';
import { numberOf, textOf } from '../../kit/checks';
import type { Data, Seller } from '../../kit/types';
import type { World } from '../../kit/world';
import { split, spreads } from './split';
import type { Plan, Shipment, Units } from './types';
import { warehouses } from './warehouses';

const day = 86_400_000;
/** A plan that nobody takes lapses. */
const planDays = 2;
const labelCents = 18;
const mostUnits = 5_000;

export const planPlace = 'crateway/plans';
export const shipmentPlace = 'crateway/shipments';

/** A product of the catalogue, as far as its taking in hangs on it. */
export type Known = { id: string; demands: string[]; sides: [number, number, number] };

function refusal(one: Units, expires: string, product: Known | undefined, now: number): string | null {
  if (!product) return 'There is no such product in the catalogue.';
  if (one.quantity < 1 || one.quantity > mostUnits) return `Between 1 and ${mostUnits} units of a number are taken in.`;
  if (Math.max(...product.sides) > 600) return 'It is too long for our shelves.';
  if (!product.demands.includes('expires')) return null;
  const until = Date.parse(expires);
  if (Number.isNaN(until)) return 'Its expiry date is missing.';
  return until < now + 105 * day ? 'It expires within 105 days of being sent in.' : null;
}

/** Makes a plan for units; asked again for the same units it is split another way. */
export async function makePlan(
  world: World,
  seller: Seller,
  given: { units: Data[]; labels: Plan['labels']; again: string },
  known: (product: string) => Known | undefined,
): Promise<Plan> {
  const before = world.store.get<Plan>(planPlace, given.again);
  const turn = before && before.seller === seller.name ? spreads.indexOf(before.spread) + 1 : 0;
  const spread = spreads[turn % spreads.length] ?? 'wide';
  const refused: Plan['refused'] = [];
  const taken: Units[] = [];
  for (const one of given.units) {
    const units: Units = { number: textOf(one.number), product: textOf(one.product), quantity: numberOf(one.quantity) };
    const reason = refusal(units, textOf(one.expires), known(units.product), world.now());
    if (reason) refused.push({ ...units, reason });
    else taken.push(units);
  }
  const open = warehouses(world).filter((one) => !one.closed);
  const count = taken.reduce((sum, one) => sum + one.quantity, 0);
  const plan: Plan = {
    id: `P${randomUUID().slice(0, 8).toUpperCase()}`,
    seller: seller.name,
    labels: given.labels,
    spread,
    placements: open.length ? split(taken, open, spread, turn) : [],
    labelling: given.labels === 'warehouse' ? count * labelCents : 0,
    refused,
    createdAt: world.now(),
    expiresAt: world.now() + planDays * day,
    shipments: [],
  };
  return world.store.put(planPlace, plan.id, plan);
}

/** Makes a shipment for each warehouse of a plan. Taken twice, the same shipments are answered. */
export async function takePlan(world: World, plan: Plan): Promise<Shipment[] | string> {
  if (plan.shipments.length) return plan.shipments.flatMap((id) => world.store.get<Shipment>(shipmentPlace, id) ?? []);
  if (plan.expiresAt <= world.now()) return 'This plan has lapsed. Ask for a new one.';
  if (plan.placements.length === 0) return 'Nothing of this plan can be sent in.';
  const closed = warehouses(world).find(
    (one) => one.closed && plan.placements.some((placement) => placement.warehouse === one.id),
  );
  if (closed) return `${closed.name} takes nothing in any more. Ask for a new plan.`;
  const shipments = plan.placements.map(
    ({ warehouse, units }): Shipment => ({
      id: `S${randomUUID().slice(0, 8).toUpperCase()}`,
      plan: plan.id,
      seller: plan.seller,
      warehouse,
      labels: plan.labels,
      units,
      boxes: [],
      state: 'open',
      carrier: null,
      shippedAt: null,
      receivedAt: null,
      received: [],
      claims: [],
    }),
  );
  for (const one of shipments) await world.store.put(shipmentPlace, one.id, one);
  await world.store.put<Plan>(planPlace, plan.id, { ...plan, shipments: shipments.map((one) => one.id) });
  return shipments;
}
