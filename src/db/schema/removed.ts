import { mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { document, id, moment, reference } from './columns';

export const removedKinds = ['template', 'badge', 'box', 'routine', 'search', 'preset', 'columns'] as const;

/** What was thrown away and can be had back for a while, as it was. */
export const removed = mysqlTable(
  'removed',
  {
    id: id(),
    kind: varchar('kind', { length: 12 }).notNull().$type<(typeof removedKinds)[number]>(),
    /** The number that it had, and gets again. */
    was: reference('was').notNull(),
    name: varchar('name', { length: 80 }).notNull(),
    row: document<Record<string, unknown>>('row').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [uniqueIndex('removed_was').on(table.kind, table.was)],
);
