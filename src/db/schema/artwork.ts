import { boolean, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import type { ArtworkDetails, GroundScore, Placing, Visible } from '../../core/artwork';
import { document, moment, reference } from './columns';

/** Items that are artwork: what was seen in the picture, and what its file said of it. */
export const artwork = mysqlTable('artwork', {
  itemId: reference('item_id').primaryKey(),
  /** The original picture. */
  hash: varchar('hash', { length: 64 }).notNull().unique(),
  /** What the file was called. */
  name: varchar('name', { length: 300 }).notNull(),
  visible: document<Visible>('visible').notNull(),
  scores: document<GroundScore[]>('scores').notNull(),
  said: document<ArtworkDetails>('said').notNull(),
  /** How it is placed on a product, in proportion to what is printed on. */
  placing: document<Placing>('placing').notNull(),
  /** What the file says of itself cannot be read; it is left as it is. */
  isBroken: boolean('is_broken').notNull(),
  at: moment('at').notNull(),
});
