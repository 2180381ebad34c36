import { desc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { missingOf, packedOf } from '../../core/consignment';
import { unitsAt } from '../../core/item';
import { database } from '../../db/client';
import { account, consignmentStates, item, labellers, packedUnit, type ShipmentRow } from '../../db/schema';
import { faultsOf, usualLimits } from './box-faults';
import { boxLabelOf } from './box-name';
import { loadConsignment, shipmentStateSchema, shipmentsOf } from './load-consignment';

const limitsSchema = z.object({ grams: z.number(), millimetres: z.number() });
const costsSchema = z.object({ placing: z.number(), labelling: z.number(), prep: z.number(), postage: z.number() });
const boxSchema = z.object({
  number: z.number(),
  contents: z.record(z.string(), z.number()),
  grams: z.number().nullable(),
  millimetres: z.tuple([z.number(), z.number(), z.number()]).nullable(),
  isFull: z.boolean(),
  /** What stands in its barcode: theirs once they know it, ours before. */
  code: z.string(),
});
const shipmentViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  remoteId: z.string(),
  warehouse: z.string(),
  warehouseName: z.string(),
  address: z.array(z.string()),
  isClosed: z.boolean(),
  state: shipmentStateSchema,
  units: z.array(z.object({ item: z.number(), sku: z.string(), quantity: z.number(), packed: z.number() })),
  boxes: z.array(boxSchema),
  faults: z.array(
    z.object({ box: z.number().nullable(), field: z.enum(['grams', 'millimetres', 'contents']), message: z.string() }),
  ),
  carrier: z.string(),
  tracking: z.array(z.string()),
  costs: costsSchema,
  received: z.array(z.object({ sku: z.string(), expected: z.number(), received: z.number() })),
  missing: z.array(z.object({ sku: z.string(), missing: z.number() })),
  lost: z.record(z.string(), z.number()),
  claims: z.array(
    z.object({
      sku: z.string(),
      quantity: z.number(),
      note: z.string(),
      answer: z.enum(['open', 'found', 'paid', 'refused']),
      amount: z.number(),
    }),
  ),
  shippedAt: z.string().nullable(),
  receivedAt: z.string().nullable(),
  lookedAt: z.string().nullable(),
});
export const planViewSchema = z.object({
  planId: z.string(),
  expiresAt: z.string(),
  placements: z.array(
    z.object({
      warehouse: z.string(),
      name: z.string(),
      units: z.array(z.object({ sku: z.string(), quantity: z.number() })),
      placing: z.number(),
    }),
  ),
  refused: z.array(z.object({ sku: z.string(), quantity: z.number(), reason: z.string() })),
  labels: z.enum(labellers),
  costs: costsSchema.extend({ postage: z.number().nullable() }),
  askedAt: z.string(),
});

export const consignmentViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  name: z.string(),
  accountId: z.number(),
  accountName: z.string(),
  state: z.enum(consignmentStates),
  labels: z.enum(labellers),
  labelSeconds: z.number(),
  hourCost: z.number(),
  prep: z.string(),
  prepCost: z.number(),
  boxUnits: z.number(),
  sellsThere: z.boolean(),
  limits: limitsSchema,
  units: z.array(
    z.object({
      item: z.number(),
      sku: z.string(),
      title: z.string(),
      quantity: z.number(),
      /** What is here, and what lies in their warehouses already. */
      here: z.number(),
      there: z.number(),
      grams: z.number().nullable(),
    }),
  ),
  plans: z.array(planViewSchema),
  planId: z.string().nullable(),
  shipments: z.array(shipmentViewSchema),
  /** What was packed last, newest first. */
  packed: z.array(
    z.object({
      sku: z.string(),
      warehouse: z.string(),
      box: z.number(),
      isUndone: z.boolean(),
      byName: z.string(),
      at: z.string(),
    }),
  ),
  byName: z.string(),
  createdAt: z.string(),
});
export type ConsignmentView = z.infer<typeof consignmentViewSchema>;

/** A consignment with its plans, its shipments and their boxes. */
export async function findConsignment(id: number): Promise<ConsignmentView> {
  const db = database();
  const row = await loadConsignment(db, id);
  const shipments = await shipmentsOf(db, id);
  const ids = [
    ...new Set([...row.units.map((one) => one.item), ...shipments.flatMap((one) => one.units.map((its) => its.item))]),
  ];
  const things = await db
    .select({
      id: item.id,
      sku: item.sku,
      title: item.title,
      quantity: item.quantity,
      elsewhere: item.elsewhere,
      grams: item.weightGrams,
    })
    .from(item)
    .where(inArray(item.id, [0, ...ids]));
  const known = new Map(things.map((one) => [one.id, one]));
  const [shop] = await db.select({ name: account.name }).from(account).where(eq(account.id, row.accountId));
  const packed = await db
    .select()
    .from(packedUnit)
    .where(eq(packedUnit.consignmentId, id))
    .orderBy(desc(packedUnit.id))
    .limit(12);
  const limits = row.limits ?? usualLimits;
  const views = await Promise.all(shipments.map((one) => viewOf(one, limits)));
  const { planId, plans, state, createdAt, ...rest } = row;
  return {
    id,
    version: rest.version,
    name: rest.name,
    accountId: rest.accountId,
    accountName: shop?.name ?? '',
    state,
    labels: rest.labels,
    labelSeconds: rest.labelSeconds,
    hourCost: rest.hourCost,
    prep: rest.prep,
    prepCost: rest.prepCost,
    boxUnits: rest.boxUnits,
    sellsThere: rest.sellsThere,
    limits,
    units: row.units.flatMap(({ item: one, quantity }) => {
      const thing = known.get(one);
      return thing
        ? [
            {
              item: one,
              sku: thing.sku,
              title: thing.title,
              quantity,
              here: thing.quantity,
              there: unitsAt(thing.elsewhere, 'there', row.accountId),
              grams: thing.grams,
            },
          ]
        : [];
    }),
    plans,
    planId,
    shipments: views,
    packed: packed.map(({ sku, shipmentId, box, isUndone, byName, at }) => ({
      sku,
      warehouse: shipments.find((one) => one.id === shipmentId)?.warehouseName ?? '',
      box,
      isUndone,
      byName,
      at: at.toISOString(),
    })),
    byName: rest.byName,
    createdAt: createdAt.toISOString(),
  };
}

async function viewOf(
  row: ShipmentRow,
  limits: z.infer<typeof limitsSchema>,
): Promise<z.infer<typeof shipmentViewSchema>> {
  const isPacked = row.state === 'open' || row.state === 'told';
  return {
    id: row.id,
    version: row.version,
    remoteId: row.remoteId,
    warehouse: row.warehouse,
    warehouseName: row.warehouseName,
    address: row.address,
    isClosed: row.isClosed,
    state: row.state,
    units: row.units.map((one) => ({ ...one, packed: packedOf(row.boxes, one.sku) })),
    boxes: row.boxes.map((box, index) => ({ ...box, code: row.boxCodes[index] ?? boxLabelOf(row.id, box.number) })),
    faults: isPacked ? await faultsOf(database(), row, limits) : [],
    carrier: row.carrier,
    tracking: row.tracking,
    costs: row.costs,
    received: row.received,
    missing: row.state === 'received' ? missingOf(row).map(({ sku, missing }) => ({ sku, missing })) : [],
    lost: row.lost,
    claims: row.claims,
    shippedAt: row.shippedAt?.toISOString() ?? null,
    receivedAt: row.receivedAt?.toISOString() ?? null,
    lookedAt: row.lookedAt?.toISOString() ?? null,
  };
}
