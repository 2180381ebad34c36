import { sql } from 'drizzle-orm';
import { bigint, date, index, int, mysqlTable, primaryKey, smallint, varchar } from 'drizzle-orm/mysql-core';
import type { Layer } from '../../core/insight';
import { id, moment, reference } from './columns';

/**
 * Units that came in together and left together, by item: the stock ledger as one looks back at it. Made of the ledger alone,
 * and made anew whenever an item's ledger goes on.
 */
export const stockLayer = mysqlTable(
  'stock_layer',
  {
    id: id(),
    itemId: reference('item_id').notNull(),
    units: int('units').notNull(),
    /** The day on which they were bought, or else came in. */
    inOn: date('in_on', { mode: 'string' }).notNull(),
    /** The day on which they left; null while they are here. */
    outOn: date('out_on', { mode: 'string' }),
    how: varchar('how', { length: 4 }).notNull().$type<Layer['how']>(),
    saleId: reference('sale_id'),
  },
  (table) => [index('layer_item').on(table.itemId)],
);

/** Since when an item has been listed on an account, and how many had it before: the first is 1. */
export const firstListed = mysqlTable(
  'first_listed',
  {
    itemId: reference('item_id').notNull(),
    accountId: reference('account_id').notNull(),
    at: moment('at').notNull(),
    nth: smallint('nth').notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.itemId, table.accountId] })],
);

/** When an item first stood anywhere, when its price was first lowered, when a listing of it was first renewed, when it came onto a second account. */
export const itemMilestone = mysqlTable(
  'item_milestone',
  {
    itemId: reference('item_id').primaryKey(),
    listedAt: moment('listed_at'),
    cutAt: moment('cut_at'),
    renewedAt: moment('renewed_at'),
    crossedAt: moment('crossed_at'),
    /** The last line of its ledger that its layers are made of: the lines of one item are kept in the order of their numbers. */
    movedUpTo: bigint('moved_up_to', { mode: 'number' }),
    /** When its layers, its places or anything of this was written last. */
    keptAt: moment('kept_at').notNull().default(sql`current_timestamp(3) on update current_timestamp(3)`),
  },
  (table) => [index('milestone_kept').on(table.keptAt)],
);

/** How far each source has been read for looking back: the last number of its records. */
export const insightCursor = mysqlTable('insight_cursor', {
  source: varchar('source', { length: 20 }).primaryKey(),
  upTo: bigint('up_to', { mode: 'number' }).notNull(),
});
