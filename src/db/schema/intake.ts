import { boolean, date, index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { IntakeSettings, ShareWay } from '../../core/batch';
import type { LabelRequest } from '../../core/label';
import { document, id, minor, moment, reference } from './columns';

export const batchStates = ['open', 'reviewed', 'sent', 'closed'] as const;

/** One sitting of recording: a pile that was bought together. Its pieces name it by its code, `B` and its number. */
export const batch = mysqlTable(
  'batch',
  {
    id: id(),
    version: int('version').notNull().default(1),
    name: varchar('name', { length: 120 }).notNull(),
    supplier: varchar('supplier', { length: 120 }).notNull(),
    boughtOn: date('bought_on', { mode: 'string' }),
    invoice: varchar('invoice', { length: 80 }).notNull(),
    /** What all of it cost, in minor units of the shop's own currency; null where each piece has its own cost. */
    totalCost: minor('total_cost'),
    shareBy: varchar('share_by', { length: 8 }).notNull().$type<ShareWay>(),
    /** What a person has said single lines bear, by the line's number. */
    shares: document<Record<string, number>>('shares').notNull(),
    /** The pattern of its stock numbers; empty for the shop's own. */
    skuPattern: varchar('sku_pattern', { length: 80 }).notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof batchStates)[number]>(),
    /** With what its next piece is recorded. */
    settings: document<IntakeSettings>('settings').notNull(),
    /** Everything that was recorded in it, to be taken back as one. */
    runId: reference('run_id').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('batch_state').on(table.state, table.id)],
);
export type BatchRow = typeof batch.$inferSelect;

export const printStates = ['waiting', 'printed', 'stopped'] as const;

/** What a scan brought about: an item was made, units were added to one, or nothing yet. */
export const lineKinds = ['item', 'stock', 'none'] as const;
/** What is known of the piece. */
export const lineFindings = ['looking', 'known', 'found', 'unsure', 'unknown', 'broken'] as const;

/** An entry of a catalogue that was found, kept short. */
export type LineFound = {
  market: string;
  from: string;
  id: string;
  name: string;
  brand: string;
  model: string;
  barcode: string;
  category: string;
  records: { accountId: number; id: string; name: string; categoryId: string | null }[];
};
/** What such things sold for, in minor units of the shop's own currency. */
export type LineSales = { count: number; median: number; low: number; high: number; daysOnSale: number | null };

/** One scan, as it came, and what became of it. */
export const batchLine = mysqlTable(
  'batch_line',
  {
    id: id(),
    batchId: reference('batch_id').notNull(),
    /** Chosen by who scanned: sent twice, it is one line. */
    key: varchar('line_key', { length: 36 }).notNull(),
    scanned: varchar('scanned', { length: 200 }).notNull(),
    /** The code that was read; empty for words. */
    code: varchar('code', { length: 20 }).notNull(),
    kind: varchar('kind', { length: 5 }).notNull().$type<(typeof lineKinds)[number]>(),
    finding: varchar('finding', { length: 8 }).notNull().$type<(typeof lineFindings)[number]>(),
    /** What there is to know of the scan, in words: how it was mended, or why it is none. */
    said: varchar('said', { length: 300 }).notNull(),
    itemId: reference('item_id'),
    /** The combination that units were added to, by its own key. */
    combination: varchar('combination', { length: 16 }),
    units: int('units').notNull(),
    /** Where units were added: what the item had and cost before. */
    unitsBefore: int('units_before'),
    costBefore: minor('cost_before'),
    settings: document<IntakeSettings>('settings').notNull(),
    /** What has to be asked and was not answered yet. */
    asksGrade: boolean('asks_grade').notNull(),
    asksPrice: boolean('asks_price').notNull(),
    found: document<LineFound[]>('found').notNull(),
    sales: document<LineSales | null>('sales'),
    /** Catalogues that did not answer, in words. */
    silent: document<string[]>('silent').notNull(),
    /** Catalogues are to be asked from then on; null where they were, or need not be. */
    lookAt: moment('look_at'),
    /** When everything was there that is known of it. */
    doneAt: moment('done_at'),
    /** It was taken back. */
    isUndone: boolean('is_undone').notNull().default(false),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [
    uniqueIndex('line_once').on(table.key),
    index('line_batch').on(table.batchId, table.id),
    index('line_item').on(table.itemId),
    index('line_look').on(table.lookAt),
  ],
);
export type BatchLineRow = typeof batchLine.$inferSelect;

/** Labels that are to be printed, in their order; what exactly they say is read when it is their turn. */
export const printJob = mysqlTable(
  'print_job',
  {
    id: id(),
    title: varchar('title', { length: 200 }).notNull(),
    request: document<LabelRequest>('request').notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof printStates)[number]>(),
    /** Why it still waits. */
    message: varchar('message', { length: 300 }),
    /** Somebody prints it just now, until then at most. */
    leaseUntil: moment('lease_until'),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
    printedAt: moment('printed_at'),
  },
  (table) => [index('print_state').on(table.state, table.id)],
);

/** Settings of an intake under a name. */
export const intakePreset = mysqlTable('intake_preset', {
  id: id(),
  version: int('version').notNull().default(1),
  name: varchar('name', { length: 60 }).notNull().unique(),
  settings: document<IntakeSettings>('settings').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  at: moment('at').notNull(),
});
