import { bigint, index, int, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { PrintTemplate } from '../../core/artwork';
import type { Template } from '../../core/listing';
import type { Tariff } from '../../core/price';
import { document, id, moment, reference } from './columns';

/** Texts chosen by rule and filled from the item. No accounts named: for all of them. */
export const template = mysqlTable(
  'template',
  {
    id: id(),
    name: varchar('name', { length: 80 }).notNull(),
    accounts: document<number[]>('accounts').notNull(),
    conditions: document<Template['conditions']>('conditions').notNull(),
    fields: document<Template['fields']>('fields').notNull(),
    /** What artwork is printed on, and how it stands there; null for texts alone. */
    print: document<PrintTemplate | null>('print'),
    previous: document<Template['previous']>('previous'),
    version: int('version').notNull().default(1),
    byName: varchar('by_name', { length: 120 }).notNull(),
    updatedAt: moment('updated_at').notNull(),
  },
  (table) => [uniqueIndex('template_name').on(table.name)],
);

/**
 * What was learned about a marketplace: `attribute` (their id → our name), `value` (their attribute id and our value →
 * theirs), `product` (what identifies the thing → their entry). Visible, and can be taken back.
 */
export const mapping = mysqlTable(
  'mapping',
  {
    id: id(),
    market: varchar('market', { length: 40 }).notNull(),
    kind: varchar('kind', { length: 12 }).notNull().$type<'attribute' | 'value' | 'product'>(),
    /** Their attribute id, or empty for products. */
    attribute: varchar('attribute', { length: 60 }).notNull(),
    source: varchar('source', { length: 190 }).notNull(),
    target: varchar('target', { length: 190 }).notNull(),
    /** A product's name and category there. */
    detail: document<{ name: string; categoryId: string | null } | null>('detail'),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [
    uniqueIndex('mapping_once').on(table.market, table.kind, table.attribute, table.source),
    index('mapping_at').on(table.at),
    // What a code was recognised as, on whichever marketplace.
    index('mapping_source').on(table.kind, table.source),
  ],
);

/** Exchange rates by their day. */
export const rate = mysqlTable(
  'rate',
  {
    base: varchar('base', { length: 3 }).notNull(),
    currency: varchar('currency', { length: 3 }).notNull(),
    day: varchar('day', { length: 10 }).notNull(),
    millionths: bigint('millionths', { mode: 'number' }).notNull(),
    readAt: moment('read_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.base, table.currency, table.day] })],
);

/** How a carrier computes, as it published it. */
export const tariff = mysqlTable('tariff', {
  carrier: varchar('carrier', { length: 40 }).primaryKey(),
  doc: document<Tariff>('doc').notNull(),
  readAt: moment('read_at').notNull(),
});

/** The handful of boxes that one owns; inside measures. */
export const box = mysqlTable('box', {
  id: id(),
  name: varchar('name', { length: 60 }).notNull(),
  lengthMm: int('length_mm').notNull(),
  widthMm: int('width_mm').notNull(),
  heightMm: int('height_mm').notNull(),
  grams: int('grams').notNull(),
  cost: int('cost'),
});

/** What postage really cost, to learn the cost per pound from. */
export const postagePaid = mysqlTable(
  'postage_paid',
  {
    id: id(),
    saleId: reference('sale_id'),
    carrier: varchar('carrier', { length: 40 }).notNull(),
    grams: int('grams').notNull(),
    paid: int('paid').notNull(),
    at: moment('at').notNull(),
  },
  (table) => [index('postage_at').on(table.at)],
);
