import { boolean, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import type { ArtworkDetails, Tones } from '../../core/artwork';
import type { PhotoPrint } from '../../core/match';
import { document, moment, reference } from './columns';

/** Items that are artwork: what was seen in the picture, and what its file said of it. */
export const artwork = mysqlTable('artwork', {
  itemId: reference('item_id').primaryKey(),
  /** The original picture. */
  hash: varchar('hash', { length: 64 }).notNull().unique(),
  /** What the file was called. */
  name: varchar('name', { length: 300 }).notNull(),
  /** How much of it has which brightness: what any ground is held against. Null until it is looked at. */
  tones: document<Tones | null>('tones'),
  /** What it looks like, as numbers, its transparent parts as grey; by which the same picture is known in another file. */
  print: document<PhotoPrint | null>('print'),
  /** The hash of its pixels: the same picture in another file has the same. */
  pixels: varchar('pixels', { length: 64 }),
  /** Artwork that looks like it; null where none does, or where a person has said that it is another. */
  twinOf: reference('twin_of'),
  said: document<ArtworkDetails>('said').notNull(),
  /** What the file says of itself cannot be read; it is left as it is. */
  isBroken: boolean('is_broken').notNull(),
  at: moment('at').notNull(),
});

/** Printables that were made beforehand, by the hash of how they are made. */
export const printable = mysqlTable('printable', {
  key: varchar('file_key', { length: 64 }).primaryKey(),
  bytes: int('bytes').notNull(),
  at: moment('at').notNull(),
});
