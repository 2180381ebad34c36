import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ownLabelling, plannedPostage } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import type { Item } from '../../core/item';
import { convertBack } from '../../core/measure';
import { database, transaction } from '../../db/client';
import { type ConsignmentRow, consignment, type StoredPlan } from '../../db/schema';
import type { InboundPlan } from '../../markets';
import { readTariffs } from '../records/accounts/read-tariffs';
import { loadItems } from '../records/items/load-items';
import { inboundOf } from './inbound-of';
import { loadConsignment } from './load-consignment';
import { productsThere } from './products-there';

/** So many plans stand beside each other; the oldest gives way. */
const mostPlans = 6;

export const askPlanSchema = z
  .object({
    /** The plan that is to be split in another way. */
    again: z.string().max(80).optional(),
  })
  .strict();

/** Asks the marketplace where the units are to go, and keeps its answer beside those of before. */
export async function askPlan(id: number, { again }: z.output<typeof askPlanSchema>): Promise<StoredPlan> {
  const db = database();
  const row = await loadConsignment(db, id);
  if (row.state !== 'choosing') throw new NettingError('too-late', 'A plan is taken already');
  if (row.units.length === 0) throw new NettingError('invalid', 'Nothing is chosen yet', { field: 'units' });
  const { session, inbound, account } = await inboundOf(row.accountId);
  const items = await loadItems(
    db,
    row.units.map((one) => one.item),
  );
  const products = await productsThere(db, items, account);
  const units = row.units.flatMap(({ item, quantity }) => {
    const found = items.find((one) => one.id === item);
    return found
      ? [
          {
            sku: found.sku,
            productId: products.get(item)?.product ?? '',
            quantity,
            expiresOn: products.get(item)?.expiresOn ?? null,
          },
        ]
      : [];
  });
  // What no product is known for cannot be asked about: it is refused here, with the way out.
  const known = units.filter((one) => one.productId !== '');
  const unknown = units
    .filter((one) => one.productId === '')
    .map(({ sku, quantity }) => ({
      sku,
      quantity,
      reason: 'It belongs to no product of their catalogue yet: choose one on its sheet',
    }));
  if (known.length === 0)
    throw new NettingError('invalid', 'None of these belongs to a product of their catalogue', {
      field: 'units',
      fix: 'Choose the product on each item’s sheet',
    });
  const { warehouses, limits } = await inbound.warehouses(session);
  const plan = await inbound.plan(session, { units: known, labels: row.labels, again }, randomUUID());
  const tariffs = await readTariffs();
  const { rate } = account;
  const home = (amount: number) => (rate ? convertBack(amount, rate) : amount);
  const stored: StoredPlan = {
    planId: plan.planId,
    expiresAt: plan.expiresAt,
    placements: plan.placements.map(({ warehouse, units: some, placing }) => ({
      warehouse,
      name: warehouses.find((one) => one.id === warehouse)?.name ?? warehouse,
      units: some.map(({ sku, quantity }) => ({ sku, quantity })),
      placing: home(placing),
    })),
    refused: [...plan.refused.map(({ sku, quantity, reason }) => ({ sku, quantity, reason })), ...unknown],
    labels: row.labels,
    costs: {
      ...costsOf(row, plan, home),
      postage: postageOf(plan, items, limits.grams, tariffs),
    },
    askedAt: new Date().toISOString(),
  };
  await transaction(async (tx) => {
    const now = await loadConsignment(tx, id, true);
    if (now.state !== 'choosing' || JSON.stringify(now.units) !== JSON.stringify(row.units))
      throw new NettingError('conflict', 'What is to be sent in was changed meanwhile', { fix: 'Ask for a plan anew' });
    const plans = [...now.plans.filter((one) => one.planId !== stored.planId), stored].slice(-mostPlans);
    await tx
      .update(consignment)
      .set({ plans, limits, version: sql`${consignment.version} + 1` })
      .where(eq(consignment.id, id));
  });
  return stored;
}

function costsOf(row: ConsignmentRow, plan: InboundPlan, home: (amount: number) => number) {
  const units = plan.placements.flatMap((one) => one.units).reduce((sum, one) => sum + one.quantity, 0);
  return {
    placing: home(plan.placements.reduce((sum, one) => sum + one.placing, 0)),
    labelling: row.labels === 'warehouse' ? home(plan.labelling) : ownLabelling(units, row.labelSeconds, row.hourCost),
    prep: units * row.prepCost,
  };
}

function postageOf(
  plan: InboundPlan,
  items: readonly Item[],
  limit: number,
  tariffs: Awaited<ReturnType<typeof readTariffs>>,
): number | null {
  const grams = new Map(items.map((one) => [one.sku, one.weightGrams ?? 0]));
  // What nobody weighed cannot be reckoned with.
  if (plan.placements.some(({ units }) => units.some((one) => !grams.get(one.sku)))) return null;
  let sum = 0;
  for (const { units } of plan.placements) {
    const weight = units.reduce((all, one) => all + (grams.get(one.sku) ?? 0) * one.quantity, 0);
    const postage = plannedPostage(weight, { limit, tariffs });
    if (postage === null) return null;
    sum += postage;
  }
  return sum;
}
