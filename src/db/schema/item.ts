import { sql } from 'drizzle-orm';
import { boolean, date, double, index, int, mediumtext, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core';
import type { Visible } from '../../core/artwork';
import type { RoutinePlan, Step } from '../../core/edit';
import type { Filter, SortName } from '../../core/filter';
import type {
  AfarPlace,
  Axis,
  ConditionGrade,
  CustomField,
  CustomValues,
  MovementReason,
  Variation,
} from '../../core/item';
import type { BadgeArt } from '../../core/photo/layer';
import type { PhotoLook } from '../../core/photo/look';
import { document, id, minor, moment, reference, standing } from './columns';

/** One sellable thing. `quantity` is the sum of its movements, kept in the transaction that writes them. */
export const item = mysqlTable(
  'item',
  {
    id: id(),
    version: int('version').notNull().default(1),
    sku: varchar('sku', { length: 40 }).notNull().unique(),
    title: varchar('title', { length: 300 }).notNull(),
    brand: varchar('brand', { length: 80 }).notNull(),
    model: varchar('model', { length: 120 }).notNull(),
    category: varchar('category', { length: 120 }).notNull(),
    condition: varchar('condition_grade', { length: 20 }).$type<ConditionGrade>(),
    conditionNote: text('condition_note').notNull(),
    description: mediumtext('description').notNull(),
    highlights: document<string[]>('highlights').notNull(),
    keywords: document<string[]>('keywords').notNull(),
    attributes: document<Record<string, string>>('attributes').notNull(),
    currency: varchar('currency', { length: 3 }).notNull(),
    price: minor('price'),
    retailPrice: minor('retail_price'),
    cost: minor('cost'),
    quantity: int('quantity').notNull().default(0),
    barcode: varchar('barcode', { length: 20 }).notNull(),
    location: varchar('location', { length: 60 }).notNull(),
    supplier: varchar('supplier', { length: 120 }).notNull(),
    boughtOn: date('bought_on', { mode: 'string' }),
    /** The batch that it came in with, by its code, such as B12. */
    batch: varchar('batch', { length: 20 }).notNull().default(''),
    /** The day on which it comes up under what needs a person, and the word that says why. */
    remindOn: date('remind_on', { mode: 'string' }),
    remindOf: varchar('remind_of', { length: 120 }).notNull().default(''),
    notes: text('notes').notNull(),
    weightGrams: int('weight_grams'),
    lengthMm: int('length_mm'),
    widthMm: int('width_mm'),
    heightMm: int('height_mm'),
    expiresOn: date('expires_on', { mode: 'string' }),
    countryOfOrigin: varchar('country_of_origin', { length: 60 }).notNull().default(''),
    own: document<CustomValues>('own_values').notNull().default({}),
    axes: document<Axis[]>('axes').notNull().default([]),
    variations: document<Variation[]>('variations').notNull().default([]),
    /** It has combinations; few items do, and those are looked through by their numbers and barcodes. */
    isVaried: boolean('is_varied').generatedAlwaysAs(sql.raw("`axes` <> '[]'"), { mode: 'stored' }),
    /** Units that are not for sale from here, by place and account. */
    elsewhere: document<Record<string, string>>('elsewhere').notNull().default({}),
    /** A short film of it, by its hash; empty for none. */
    clip: varchar('clip', { length: 64 }).notNull().default(''),
    /** Where artwork was placed by hand, and what was said of it when it was looked over. */
    placings: document<Record<string, string>>('placings').notNull().default({}),
    looks: document<Record<string, string>>('looks').notNull().default({}),
    mainPhoto: varchar('main_photo', { length: 64 }),
    photoCount: int('photo_count').notNull().default(0),
    /** Chosen by who sent it, so that it is made once however often it is sent. */
    madeBy: varchar('made_by', { length: 36 }).unique(),
    standing: standing('archived').notNull().default(sql`false`),
    createdAt: moment('created_at').notNull(),
    updatedAt: moment('updated_at').notNull(),
  },
  (table) => [
    index('item_updated').on(table.standing, table.updatedAt, table.id),
    index('item_created').on(table.standing, table.createdAt, table.id),
    index('item_title').on(table.standing, table.title, table.id),
    index('item_sku').on(table.standing, table.sku, table.id),
    index('item_brand').on(table.standing, table.brand, table.id),
    index('item_category').on(table.standing, table.category, table.id),
    index('item_condition').on(table.standing, table.condition, table.id),
    index('item_location').on(table.standing, table.location, table.id),
    index('item_price').on(table.standing, table.price, table.id),
    index('item_quantity').on(table.standing, table.quantity, table.id),
    index('item_cost').on(table.standing, table.cost, table.id),
    index('item_batch').on(table.standing, table.batch, table.id),
    // A scan asks whether the piece is known.
    index('item_barcode').on(table.barcode),
    index('item_varied').on(table.isVaried),
    index('item_remind').on(table.remindOn),
  ],
);

/** Stock numbers ever given, also of deleted items: none is given twice. */
export const usedSku = mysqlTable('used_sku', {
  sku: varchar('sku', { length: 40 }).primaryKey(),
  at: moment('at').notNull(),
});

/** An original photo, by the hash of its bytes. */
export const photoFile = mysqlTable('photo_file', {
  hash: varchar('hash', { length: 64 }).primaryKey(),
  mime: varchar('mime', { length: 40 }).notNull(),
  width: int('width').notNull(),
  height: int('height').notNull(),
  bytes: int('bytes').notNull(),
  /** The original that this picture was made from, and how; null for an original. */
  madeFrom: varchar('made_from', { length: 64 }),
  recipe: document<Record<string, unknown> | null>('recipe'),
  /** What it looks like, as numbers: one for each way up. Null where nobody has asked yet. */
  print: document<[string, string, string, string] | null>('print'),
  /** What it shows, as numbers; of an original. Null where nobody has looked at it yet. */
  look: document<PhotoLook | null>('look'),
  /** What of it is visible, as shares of its sides; of artwork alone. */
  visible: document<Visible | null>('visible'),
  /** Of what it shows, by which it is found: how sharp it is, how bright, and how much of it is empty. Null as above. */
  sharp: double('sharp'),
  bright: double('bright'),
  middle: double('middle'),
  empty: double('empty_share'),
  createdAt: moment('created_at').notNull(),
});

/** Badges that are put on photos, under a name. What carries one names it by its number. */
export const badge = mysqlTable('badge', {
  id: id(),
  name: varchar('name', { length: 60 }).notNull().unique(),
  art: document<BadgeArt>('art').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  at: moment('at').notNull(),
});

/** A photo's place on an item; the same photo may stand twice. */
export const itemPhoto = mysqlTable(
  'item_photo',
  {
    id: id(),
    itemId: reference('item_id').notNull(),
    hash: varchar('hash', { length: 64 }).notNull(),
    position: int('position').notNull(),
    /** What a photo of a flaw shows. */
    flaw: varchar('flaw', { length: 200 }),
  },
  (table) => [
    index('photo_item').on(table.itemId, table.position),
    index('photo_hash_item').on(table.hash, table.itemId),
  ],
);

/**
 * What there is to say of an item's photos together, kept so that a whole inventory is looked over at once: sides in pixels,
 * and whether one of them, or the main one, is flawed. Of an item without photos there is none.
 */
export const photoSummary = mysqlTable('photo_summary', {
  itemId: reference('item_id').primaryKey(),
  /** The longer and the shorter side of the smallest, each. */
  longest: int('longest').notNull(),
  shortest: int('shortest').notNull(),
  /** Width by height of the main one. */
  ratio: double('ratio').notNull(),
  isBlurred: boolean('is_blurred').notNull(),
  isDark: boolean('is_dark').notNull(),
  isEmpty: boolean('is_empty').notNull(),
});

/** The stock ledger: every movement of units, with its reason. */
export const movement = mysqlTable(
  'movement',
  {
    id: id(),
    itemId: reference('item_id').notNull(),
    delta: int('delta').notNull(),
    reason: varchar('reason', { length: 20 }).notNull().$type<MovementReason>(),
    /** Where: here, or set aside, on the way to or in the warehouse of an account. */
    place: varchar('place', { length: 5 }).notNull().default('here').$type<'here' | AfarPlace>(),
    accountId: reference('account_id'),
    /** The combination that was moved, by its own key; null for an item without variations. */
    combination: varchar('combination', { length: 16 }),
    /** What it was called then, in words. */
    variation: varchar('variation', { length: 200 }),
    saleId: reference('sale_id'),
    runId: reference('run_id'),
    note: varchar('note', { length: 200 }),
    at: moment('at').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
  },
  (table) => [index('movement_item').on(table.itemId, table.id)],
);

/** What was changed, by whom and why; never changed itself. Undo and history read it. */
export const changeRecord = mysqlTable(
  'change_record',
  {
    id: id(),
    itemId: reference('item_id').notNull(),
    listingId: reference('listing_id'),
    /** The combination that was changed, by its own key. */
    combination: varchar('combination', { length: 16 }),
    runId: reference('run_id'),
    itemVersion: int('item_version').notNull(),
    field: varchar('field', { length: 80 }).notNull(),
    from: document<unknown>('old_value'),
    to: document<unknown>('new_value'),
    why: varchar('why', { length: 20 })
      .notNull()
      .$type<'typing' | 'bulk' | 'undo' | 'sale' | 'marketplace' | 'import' | 'scan' | 'warehouse'>(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [index('change_item').on(table.itemId, table.id), index('change_run').on(table.runId, table.id)],
);

/** A change to many, a publish, an undo: what a person started in one go. */
export const run = mysqlTable(
  'run',
  {
    id: id(),
    kind: varchar('kind', { length: 20 })
      .notNull()
      .$type<'edit' | 'publish' | 'end' | 'undo' | 'renew' | 'settle' | 'intake'>(),
    title: varchar('title', { length: 200 }).notNull(),
    detail: document<unknown>('detail').notNull(),
    itemCount: int('item_count').notNull().default(0),
    undoOf: reference('undo_of'),
    undoneBy: reference('undone_by'),
    /** The routine that it is a run of. */
    routineId: reference('routine_id'),
    /** A person has stopped it: what had not gone out is held. */
    stoppedAt: moment('stopped_at'),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull().default(sql`current_timestamp(3)`),
  },
  (table) => [index('run_created').on(table.createdAt), index('run_routine').on(table.routineId, table.id)],
);

/** Fields that the sellers have added for themselves. */
export const customField = mysqlTable('custom_field', {
  id: id(),
  key: varchar('field_key', { length: 30 }).notNull().unique(),
  label: varchar('label', { length: 40 }).notNull(),
  type: varchar('type', { length: 8 }).notNull().$type<CustomField['type']>(),
  choices: document<string[]>('choices').notNull(),
  most: int('most'),
  from: double('least'),
  to: double('greatest'),
  category: varchar('category', { length: 120 }).notNull(),
  copied: boolean('copied').notNull().default(true),
});

/** Searches of the inventory that were given a name. */
export const savedSearch = mysqlTable('saved_search', {
  id: id(),
  name: varchar('name', { length: 80 }).notNull().unique(),
  filter: document<Filter>('filter').notNull(),
  sort: varchar('sort', { length: 20 }).notNull().$type<SortName>(),
  dir: varchar('dir', { length: 4 }).notNull().$type<'asc' | 'desc'>(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  at: moment('at').notNull(),
});

/** A series of steps with the filter that it is for, under a name; carried out by hand or by a plan. */
export const routine = mysqlTable(
  'routine',
  {
    id: id(),
    name: varchar('name', { length: 80 }).notNull().unique(),
    filter: document<Filter>('filter').notNull(),
    steps: document<Step[]>('steps').notNull(),
    send: boolean('send').notNull(),
    plan: document<RoutinePlan | null>('plan'),
    /** When the plan is due next; null without one. */
    dueAt: moment('due_at'),
    /** What came of it when it was last due, in a sentence, and whether a person should look. */
    lastAt: moment('last_at'),
    lastSaid: varchar('last_said', { length: 300 }),
    needsLook: boolean('needs_look').notNull().default(false),
    byId: varchar('by_id', { length: 40 }).notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [index('routine_due').on(table.dueAt)],
);

/** What holds for the whole shop, such as the pattern of stock numbers. */
export const setting = mysqlTable('setting', {
  name: varchar('name', { length: 40 }).primaryKey(),
  value: document<unknown>('value').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  at: moment('at').notNull(),
});

/** Short-lived codes with which a phone may add photos to one item; only their hash is kept. */
export const phoneCode = mysqlTable('phone_code', {
  hash: varchar('hash', { length: 64 }).primaryKey(),
  itemId: reference('item_id').notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  until: moment('until').notNull(),
});
