import { boolean, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { ShareWay } from '../../core/batch';
import type { ConditionGrade } from '../../core/item';
import type { EditedField, KeptSales, LotMeaning, LotPricing, LotState, PriceBasis, Source } from '../../core/kit';
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
    /** How its lots were priced the last time. */
    pricing: document<LotPricing | null>('pricing'),
    /** How many lots a drawer takes; null where nobody counts. */
    placeHolds: int('place_holds'),
    /** The last piece of long work on it. */
    taskId: reference('task_id'),
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
    /** What kind of thing it is, in the catalogue's words; empty where nobody tells. */
    sort: varchar('sort', { length: 120 }).notNull().default(''),
    condition: varchar('condition_grade', { length: 20 }).$type<ConditionGrade>(),
    quantity: int('quantity').notNull(),
    grams: int('grams'),
    price: minor('price'),
    /** What the price was made of; null where a person wrote it. */
    basis: document<PriceBasis | null>('basis'),
    /** A person holds on to it: no pricing of many changes it. */
    isKept: boolean('is_kept').notNull().default(false),
    /** Quantity tiers, such as `10: 4.50`. */
    tiers: document<string[]>('tiers').notNull().default([]),
    /** What buyers read, and where it lies, which they do not. */
    comment: varchar('comment', { length: 1_000 }).notNull(),
    place: varchar('place', { length: 60 }).notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<LotState>(),
    /** More pieces, or what is known anew of those that are there. */
    meant: varchar('meant', { length: 6 }).notNull().default('add').$type<LotMeaning>(),
    /** What was joined into it. */
    from: document<Source[]>('sources').notNull(),
    /** The item that it has become, or that its pieces were added to, and the run as which that was done. */
    itemId: reference('item_id'),
    runId: reference('run_id'),
    /** What was written here since then, and is not there yet. */
    edited: document<EditedField[]>('edited').notNull().default([]),
  },
  (table) => [
    index('kit_lot_kit').on(table.kitId, table.id),
    // Whether pieces of an entry came in before.
    index('kit_lot_entry').on(table.entry),
  ],
);
export type KitLotRow = typeof kitLot.$inferSelect;

/** Single sales of a catalogue entry, and what is on offer, as they were last heard. */
export const entrySales = mysqlTable(
  'entry_sales',
  {
    market: varchar('market', { length: 40 }).notNull(),
    entry: varchar('entry', { length: 60 }).notNull(),
    told: document<KeptSales>('told').notNull(),
    readAt: moment('read_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.market, table.entry] }), index('entry_sales_read').on(table.readAt)],
);

/** What a whole set is made of: items that are one stock with it. */
export const itemPart = mysqlTable(
  'item_part',
  {
    setId: reference('set_id').notNull(),
    partId: reference('part_id').notNull(),
    /** Pieces in one set. */
    pieces: int('pieces').notNull(),
  },
  (table) => [primaryKey({ columns: [table.setId, table.partId] }), index('item_part_part').on(table.partId)],
);
