import { int, longtext, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import { moment } from './columns';

/** A command that came with a key of its own, kept with the first thing that it did: sent again it is not done again. */
export const requestKey = mysqlTable('request_key', {
  /** A hash of the key and of who sent it. */
  hash: varchar('hash', { length: 64 }).primaryKey(),
  /** A hash of what was asked: the same key for something else is refused. */
  what: varchar('what', { length: 64 }).notNull(),
  at: moment('at').notNull(),
  /** What it was answered, as JSON; null as long as it was not, or where that is too long. */
  answer: longtext('answer'),
  status: int('status'),
});
