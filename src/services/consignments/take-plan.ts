import { and, eq, isNull, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { sharedByUnits } from '../../core/consignment';
import { isTransient, NettingError } from '../../core/errors';
import { database, type Tx, transaction } from '../../db/client';
import { type ConsignmentRow, consignment, item, type StoredPlan, shipment } from '../../db/schema';
import type { InboundShipment } from '../../markets';
import type { Actor } from '../access/actor';
import { inboundOf } from './inbound-of';
import { loadConsignment, shipmentsOf } from './load-consignment';
import { moveUnits } from './move-units';

export const takePlanSchema = z.object({ plan: z.string().min(1).max(80) }).strict();

/**
 * Takes a plan: there first, then here, where what goes with it is set aside, so that nobody sells it meanwhile. Broken off
 * in between it is done again: taken twice, they answer the same shipments.
 */
export async function takePlan(
  actor: Actor,
  id: number,
  { plan: planId }: z.output<typeof takePlanSchema>,
): Promise<{ shipments: number }> {
  const row = await loadConsignment(database(), id);
  const isTaken = (one: ConsignmentRow) => one.planId === planId && one.state !== 'choosing';
  if (isTaken(row)) return { shipments: (await shipmentsOf(database(), id)).length };
  const plan = openPlan(row, planId);
  await refuseShort(row, plan);
  const { session, inbound } = await inboundOf(row.accountId);
  // Said here before it is taken there: nobody takes another one meanwhile.
  await choosePlan(id, planId);
  const taken = await inbound.take(session, planId).catch(async (error: unknown) => {
    // Refused for good it is none any more; where nothing was answered, only this one can be taken again.
    if (error instanceof NettingError && !isTransient(error.code)) await choosePlan(id, planId, null);
    throw error;
  });
  return transaction(async (tx) => {
    const now = await loadConsignment(tx, id, true);
    if (isTaken(now)) return { shipments: (await shipmentsOf(tx, id)).length };
    openPlan(now, planId);
    const ids = await itemsBySku(tx, taken);
    const units = new Map<number, number>();
    for (const { sku, quantity } of taken.flatMap((one) => one.units)) {
      const found = ids.get(sku);
      if (found === undefined)
        throw new NettingError('not-found', `${sku} is not in the inventory any more`, { fix: 'Ask for a plan anew' });
      units.set(found, (units.get(found) ?? 0) + quantity);
    }
    await moveUnits(tx, {
      actor,
      account: now.accountId,
      units,
      from: 'here',
      to: 'aside',
      reason: 'set-aside',
      note: now.name,
    });
    await store(tx, now, plan, taken, ids);
    await tx
      .update(consignment)
      .set({ state: 'packing', planId, version: sql`${consignment.version} + 1` })
      .where(eq(consignment.id, id));
    return { shipments: taken.length };
  }).catch(async (error: unknown) => {
    // Sold in this very moment: what goes with it can be changed, and another plan taken.
    if (error instanceof NettingError) await choosePlan(id, planId, null);
    throw error;
  });
}

function openPlan(row: ConsignmentRow, planId: string): StoredPlan {
  const plan = row.plans.find((one) => one.planId === planId);
  if (row.state !== 'choosing' || (row.planId && row.planId !== planId))
    throw new NettingError('too-late', 'Another plan is taken already');
  if (!plan) throw new NettingError('not-found', 'This plan is not kept any more', { fix: 'Ask for a plan anew' });
  if (plan.placements.length === 0)
    throw new NettingError('invalid', 'Nothing of this plan can be sent in', { fix: 'See what is refused, and why' });
  // One whose taking broke off may be taken there already: they know.
  if (row.planId !== planId && new Date(plan.expiresAt).getTime() <= Date.now())
    throw new NettingError('too-late', 'This plan has lapsed', { fix: 'Ask for a plan anew' });
  return plan;
}

/** Marks the plan that is being taken, or lets it go again. */
async function choosePlan(id: number, planId: string, becomes: string | null = planId): Promise<void> {
  const [{ affectedRows }] = await database()
    .update(consignment)
    .set({ planId: becomes })
    .where(
      and(
        eq(consignment.id, id),
        eq(consignment.state, 'choosing'),
        or(isNull(consignment.planId), eq(consignment.planId, planId)),
      ),
    );
  if (affectedRows === 0 && becomes !== null)
    throw new NettingError('conflict', 'Somebody takes another plan', { fix: 'Look at it anew' });
}

/** Said before anything is promised: what was sold since the plan was asked for. */
async function refuseShort(row: ConsignmentRow, plan: StoredPlan): Promise<void> {
  const planned = new Map<string, number>();
  for (const { sku, quantity } of plan.placements.flatMap((one) => one.units))
    planned.set(sku, (planned.get(sku) ?? 0) + quantity);
  const here = await database()
    .select({ id: item.id, sku: item.sku, quantity: item.quantity })
    .from(item)
    .where(sql`${item.id} in ${[0, ...row.units.map((one) => one.item)]}`);
  const short = here.find((one) => one.quantity < (planned.get(one.sku) ?? 0));
  if (short)
    throw new NettingError(
      'invalid',
      `${short.quantity} of ${short.sku} are here, the plan has ${planned.get(short.sku)}`,
      { field: 'units', fix: 'Change how many, then ask for a plan anew' },
    );
}

async function itemsBySku(tx: Tx, taken: readonly InboundShipment[]): Promise<Map<string, number>> {
  const skus = taken.flatMap((one) => one.units.map((units) => units.sku));
  const rows = await tx
    .select({ id: item.id, sku: item.sku })
    .from(item)
    .where(sql`${item.sku} in ${['', ...skus]}`);
  return new Map(rows.map((one) => [one.sku, one.id]));
}

/** A shipment for each warehouse, with its part of what the plan costs; postage is known when it goes. */
async function store(
  tx: Tx,
  row: ConsignmentRow,
  plan: StoredPlan,
  taken: readonly InboundShipment[],
  ids: ReadonlyMap<string, number>,
): Promise<void> {
  const counts = taken.map((one) => one.units.reduce((sum, units) => sum + units.quantity, 0));
  const labelling = sharedByUnits(plan.costs.labelling, counts);
  const prep = sharedByUnits(plan.costs.prep, counts);
  for (const [index, one] of taken.entries()) {
    const placement = plan.placements.find(({ warehouse }) => warehouse === one.warehouse);
    await tx.insert(shipment).values({
      consignmentId: row.id,
      accountId: row.accountId,
      remoteId: one.shipmentId,
      warehouse: one.warehouse,
      warehouseName: placement?.name ?? one.warehouse,
      address: one.address,
      isClosed: one.isClosed,
      units: one.units.map(({ sku, quantity }) => ({ item: ids.get(sku) ?? 0, sku, quantity })),
      boxes: [],
      boxCodes: [],
      tracking: [],
      state: 'open',
      carrier: '',
      costs: { placing: placement?.placing ?? 0, labelling: labelling[index] ?? 0, prep: prep[index] ?? 0, postage: 0 },
      received: [],
      claims: [],
      lost: {},
    });
  }
}
