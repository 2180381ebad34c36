import { index, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import type { ShareWay } from '../../core/batch';
import type { ConditionGrade } from '../../core/item';
import type { LotState, Source } from '../../core/kit';
import { document, id, minor, moment, reference } from './columns';

export const kitStates = ['open', 'closed'] as const;

/** Sets that are broken up into their parts, in a sitting that can be left and taken up again. */
export const kit = mysqlTable(
  'kit',
  {
    id: id(),
    version: int('version').notNull().default(1),
    name: varchar('name', { length: 120 }).notNull(),
    /** The account in whose catalogue the parts are entries; none where they are known by their words. */
    accountId: reference('account_id'),
    supplier: varchar('supplier', { length: 120 }).notNull(),
    /** What all of it cost, in minor units; shared out over the pieces that are not taken out. */
    totalCost: minor('total_cost'),
    shareBy: varchar('share_by', { length: 8 }).notNull().$type<Exclude<ShareWay, 'hand'>>(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof kitStates)[number]>(),
    runId: reference('run_id').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('kit_state').on(table.state, table.id)],
);
export type KitRow = typeof kit.$inferSelect;

/** Equal pieces out of a kit, until they are in stock. Grams and money are of one piece. */
export const kitLot = mysqlTable(
  'kit_lot',
  {
    id: id(),
    version: int('version').notNull().default(1),
    kitId: reference('kit_id').notNull(),
    /** What the catalogue calls it; empty where it is known by its words. */
    entry: varchar('entry', { length: 60 }).notNull(),
    name: varchar('name', { length: 300 }).notNull(),
    finish: varchar('finish', { length: 60 }).notNull(),
    condition: varchar('condition_grade', { length: 20 }).$type<ConditionGrade>(),
    quantity: int('quantity').notNull(),
    grams: int('grams'),
    price: minor('price'),
    /** What buyers read, and where it lies, which they do not. */
    comment: varchar('comment', { length: 1_000 }).notNull(),
    place: varchar('place', { length: 60 }).notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<LotState>(),
    /** What was joined into it. */
    from: document<Source[]>('sources').notNull(),
    /** The item that it has become. */
    itemId: reference('item_id'),
  },
  (table) => [index('kit_lot_kit').on(table.kitId, table.id)],
);
export type KitLotRow = typeof kitLot.$inferSelect;
