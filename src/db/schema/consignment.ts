import { boolean, index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { Box, BoxLimits, WayCosts } from '../../core/consignment';
import { document, id, minor, moment, reference } from './columns';

export const consignmentStates = ['choosing', 'packing', 'shipped', 'settled', 'off'] as const;
export const labellers = ['self', 'warehouse'] as const;

/** Units of an item that are to be sent in. */
export type ConsignmentUnits = { item: number; quantity: number };

/** A plan as the marketplace made it, with what it will cost; amounts in minor units of the shop's own currency. */
export type StoredPlan = {
  planId: string;
  expiresAt: string;
  placements: { warehouse: string; name: string; units: { sku: string; quantity: number }[]; placing: number }[];
  refused: { sku: string; quantity: number; reason: string }[];
  labels: (typeof labellers)[number];
  /** Postage is reckoned; null where weights are not known, or no carrier takes such boxes. */
  costs: Omit<WayCosts, 'postage'> & { postage: number | null };
  askedAt: string;
};

/** Stock that is sent to a marketplace's warehouses: what, how it is labelled, which plans were made for it. */
export const consignment = mysqlTable(
  'consignment',
  {
    id: id(),
    version: int('version').notNull().default(1),
    accountId: reference('account_id').notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof consignmentStates)[number]>(),
    units: document<ConsignmentUnits[]>('units').notNull(),
    labels: varchar('labels', { length: 9 }).notNull().$type<(typeof labellers)[number]>(),
    /** What one's own label takes, and what an hour is worth. */
    labelSeconds: int('label_seconds').notNull(),
    hourCost: minor('hour_cost').notNull(),
    /** How each unit is prepared, and what that costs. */
    prep: varchar('prep', { length: 120 }).notNull(),
    prepCost: minor('prep_cost').notNull(),
    /** A box is full with so many units; 0 for any number. */
    boxUnits: int('box_units').notNull(),
    /** What has arrived is sold from there from then on. */
    sellsThere: boolean('sells_there').notNull(),
    limits: document<BoxLimits | null>('limits'),
    plans: document<StoredPlan[]>('plans').notNull(),
    /** The plan that was taken. */
    planId: varchar('plan_id', { length: 80 }),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('consignment_state').on(table.state, table.id)],
);
export type ConsignmentRow = typeof consignment.$inferSelect;

/** `open`: it is packed; `told`: they know its boxes; `received`: counted there, and something is still missing. */
export const shipmentStates = ['open', 'told', 'shipped', 'received', 'settled', 'off'] as const;

/** Units as the marketplace counted them. */
export type ReceivedUnits = { sku: string; expected: number; received: number };
export type StoredClaim = {
  sku: string;
  quantity: number;
  note: string;
  answer: 'open' | 'found' | 'paid' | 'refused';
  amount: number;
};

/** What goes to one warehouse of a plan. */
export const shipment = mysqlTable(
  'shipment',
  {
    id: id(),
    version: int('version').notNull().default(1),
    consignmentId: reference('consignment_id').notNull(),
    accountId: reference('account_id').notNull(),
    remoteId: varchar('remote_id', { length: 80 }).notNull(),
    warehouse: varchar('warehouse', { length: 80 }).notNull(),
    warehouseName: varchar('warehouse_name', { length: 80 }).notNull(),
    address: document<string[]>('address').notNull(),
    /** They take nothing in there any more. */
    isClosed: boolean('is_closed').notNull().default(false),
    units: document<{ item: number; sku: string; quantity: number }[]>('units').notNull(),
    boxes: document<Box[]>('boxes').notNull(),
    /** What stands in the barcode of each box, and the number it travels under. */
    boxCodes: document<string[]>('box_codes').notNull(),
    tracking: document<string[]>('tracking').notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof shipmentStates)[number]>(),
    carrier: varchar('carrier', { length: 80 }).notNull(),
    costs: document<WayCosts>('costs').notNull(),
    received: document<ReceivedUnits[]>('received').notNull(),
    claims: document<StoredClaim[]>('claims').notNull(),
    /** Units that are given up for lost, by stock number. */
    lost: document<Record<string, number>>('lost').notNull(),
    shippedAt: moment('shipped_at'),
    receivedAt: moment('received_at'),
    /** When the marketplace was asked about it last. */
    lookedAt: moment('looked_at'),
  },
  (table) => [
    uniqueIndex('shipment_remote').on(table.accountId, table.remoteId),
    index('shipment_consignment').on(table.consignmentId),
    index('shipment_state').on(table.state, table.lookedAt),
  ],
);
export type ShipmentRow = typeof shipment.$inferSelect;

/** A unit that was scanned into a box, once however often it is sent. */
export const packedUnit = mysqlTable(
  'packed_unit',
  {
    id: id(),
    key: varchar('pack_key', { length: 36 }).notNull(),
    consignmentId: reference('consignment_id').notNull(),
    shipmentId: reference('shipment_id').notNull(),
    box: int('box').notNull(),
    sku: varchar('sku', { length: 40 }).notNull(),
    isNewBox: boolean('is_new_box').notNull(),
    isUndone: boolean('is_undone').notNull().default(false),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [uniqueIndex('packed_once').on(table.key), index('packed_consignment').on(table.consignmentId, table.id)],
);

/** `due`: the warehouse is to be told; `back`: it was told, and the order is off since. */
export const dispatchStates = ['due', 'sent', 'refused', 'back', 'off'] as const;

/** Units of a sale that the warehouse of another account sends. */
export const dispatch = mysqlTable(
  'dispatch',
  {
    id: id(),
    saleId: reference('sale_id').notNull(),
    /** The account whose warehouse sends. */
    accountId: reference('account_id').notNull(),
    itemId: reference('item_id').notNull(),
    sku: varchar('sku', { length: 40 }).notNull(),
    quantity: int('quantity').notNull(),
    town: varchar('town', { length: 120 }).notNull(),
    state: varchar('state', { length: 7 }).notNull().$type<(typeof dispatchStates)[number]>(),
    remoteId: varchar('remote_id', { length: 80 }),
    tracking: varchar('tracking', { length: 80 }),
    /** Why it was not sent. */
    message: varchar('message', { length: 300 }),
    at: moment('at').notNull(),
    /** It is tried again from then on. */
    nextAt: moment('next_at').notNull(),
  },
  (table) => [uniqueIndex('dispatch_sale').on(table.saleId), index('dispatch_due').on(table.state, table.nextAt)],
);
export type DispatchRow = typeof dispatch.$inferSelect;
