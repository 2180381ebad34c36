import { boolean, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { RowOptions } from '../../core/table';
import { document, id, moment, reference } from './columns';

/** Columns that are written out together, under a name. */
export const columnSet = mysqlTable('column_set', {
  id: id(),
  name: varchar('name', { length: 80 }).notNull().unique(),
  columns: document<string[]>('columns').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  updatedAt: moment('updated_at').notNull(),
});

/** What was written out: when, by whom, which columns. Its rows are kept, so that a file of it can be compared with them. */
export const fileExport = mysqlTable(
  'file_export',
  {
    id: id(),
    /** Rows of what: items and their combinations, listings, changes. */
    kind: varchar('kind', { length: 10 })
      .notNull()
      .default('items')
      .$type<'items' | 'listings' | 'history' | 'sales'>(),
    title: varchar('title', { length: 200 }).notNull(),
    columns: document<{ id: string; label: string; isNumber?: boolean }[]>('columns').notNull(),
    rowCount: int('row_count').notNull().default(0),
    itemCount: int('item_count').notNull().default(0),
    isDone: boolean('is_done').notNull().default(false),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('export_created').on(table.createdAt)],
);

export const fileExportRow = mysqlTable(
  'file_export_row',
  {
    exportId: reference('export_id').notNull(),
    itemId: reference('item_id').notNull(),
    /** Which of the item's rows it is, from 0: itself, then its combinations. */
    position: int('position').notNull(),
    combination: varchar('combination', { length: 16 }).notNull().default(''),
    cells: document<string[]>('cells').notNull(),
  },
  (table) => [primaryKey({ columns: [table.exportId, table.itemId, table.position] })],
);

export type ImportCounts = {
  same: number;
  kept: number;
  change: number;
  conflict: number;
  new: number;
  refused: number;
};
export const importRowKinds = ['change', 'conflict', 'new', 'refused'] as const;

/** A file that is read in: how it is written, what its columns are tied to, and what came of its rows. */
export const fileImport = mysqlTable(
  'file_import',
  {
    id: id(),
    name: varchar('name', { length: 200 }).notNull(),
    bytes: int('bytes').notNull(),
    contents: varchar('contents', { length: 64 }).notNull(),
    layout: document<Record<string, unknown>>('layout').notNull(),
    headers: document<string[]>('headers').notNull(),
    samples: document<string[][]>('samples').notNull(),
    ties: document<(string | null)[]>('ties').notNull(),
    /** How surely each column was recognised, and why. */
    recognised: document<{ certainty: number; why: string }[]>('recognised').notNull(),
    options: document<RowOptions & { createNew: boolean; decided: Record<string, 'file' | 'ours'> }>(
      'options',
    ).notNull(),
    /** What the file was written out as, where that is known. */
    exportId: reference('export_id'),
    state: varchar('state', { length: 10 }).notNull().$type<'open' | 'checking' | 'checked' | 'applying' | 'applied'>(),
    counts: document<ImportCounts>('counts').notNull(),
    taskId: reference('task_id'),
    runId: reference('run_id'),
    byId: varchar('by_id', { length: 40 }).notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('import_created').on(table.createdAt)],
);

/** Rows of a file that say something else than the record; of those that say the same only the number is kept. */
export const fileImportRow = mysqlTable(
  'file_import_row',
  {
    importId: reference('import_id').notNull(),
    line: int('line').notNull(),
    kind: varchar('kind', { length: 8 }).notNull().$type<(typeof importRowKinds)[number]>(),
    itemId: reference('item_id'),
    combination: varchar('combination', { length: 16 }).notNull().default(''),
    /** What the row is called: its stock number and title. */
    label: varchar('label', { length: 200 }).notNull(),
    /** The row as it stands in the file. */
    raw: document<string[]>('raw').notNull(),
    cells: document<unknown>('cells').notNull(),
    why: varchar('why', { length: 300 }),
    column: varchar('column_id', { length: 120 }),
    leftOut: boolean('left_out').notNull().default(false),
    decided: varchar('decided', { length: 4 }).$type<'file' | 'ours'>(),
    isDone: boolean('is_done').notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.importId, table.line] }),
    index('import_row_kind').on(table.importId, table.kind, table.line),
  ],
);

/** What columns of these names were tied to the last time. */
export const columnMemory = mysqlTable('column_memory', {
  signature: varchar('signature', { length: 64 }).primaryKey(),
  ties: document<Record<string, string | null>>('ties').notNull(),
  at: moment('at').notNull(),
});
