import { sql } from 'drizzle-orm';
import { bigint, index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { document, id, moment, reference } from './columns';

export const tieWays = ['name', 'barcode', 'time'] as const;
export type TieWay = (typeof tieWays)[number];

/** Files that were dropped in one go, to be tied to items; open until a person has done with it. */
export const photoDrop = mysqlTable(
  'photo_drop',
  {
    id: id(),
    state: varchar('state', { length: 8 }).notNull().default('open').$type<'open' | 'closed'>(),
    way: varchar('way', { length: 8 }).notNull().default('name').$type<TieWay>(),
    /** How names are read; empty for the usual ways. */
    pattern: varchar('pattern', { length: 120 }).notNull().default(''),
    /** A pause that begins the next item, in seconds. */
    gapSeconds: int('gap_seconds').notNull().default(60),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull().default(sql`current_timestamp(3)`),
  },
  (table) => [index('drop_open').on(table.state, table.id)],
);

/**
 * `coming`: told of, its bytes are not here yet. `here`: it can be tied. `sheet`: it only said where others go. `twice`: the
 * same picture came before it. `refused`: it cannot be read. `added`: it stands on its item. `left`: a person has put it aside.
 */
export const droppedStates = ['coming', 'here', 'sheet', 'twice', 'refused', 'added', 'left'] as const;
export type DroppedState = (typeof droppedStates)[number];

export const droppedFile = mysqlTable(
  'dropped_file',
  {
    id: id(),
    dropId: reference('drop_id').notNull(),
    /** Its name with its folders. */
    path: varchar('path', { length: 300 }).notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    state: varchar('state', { length: 8 }).notNull().default('coming').$type<DroppedState>(),
    hash: varchar('hash', { length: 64 }),
    takenAt: moment('taken_at'),
    /** Barcodes that are seen in it; null before it was looked at. */
    codes: document<string[] | null>('codes'),
    itemId: reference('item_id'),
    tiedBy: varchar('tied_by', { length: 8 }).$type<TieWay | 'hand'>(),
    /** Its place among those of its item. */
    place: int('place').notNull().default(0),
    /** Why it is tied to nothing, or what is wrong with it. */
    said: text('said'),
  },
  (table) => [
    uniqueIndex('dropped_once').on(table.dropId, table.path, table.bytes),
    index('dropped_item').on(table.dropId, table.state, table.itemId),
  ],
);
export type DroppedRow = typeof droppedFile.$inferSelect;
