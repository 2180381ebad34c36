import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  index,
  int,
  mysqlTable,
  primaryKey,
  smallint,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { Filter } from '../../core/filter';
import type { Json } from '../../core/json';
import type { Content, Overrides } from '../../core/listing';
import type { PackagingAllowance } from '../../core/measure';
import type { OfferRule, Pricing } from '../../core/price';
import type { AccountExceptions, MarketRules } from '../../core/rules';
import {
  type DriftRules,
  type KnotState,
  type ListingFacts,
  type OwnPace,
  type RenewalRule,
  stateSql,
} from '../../core/sync';
import { document, id, minor, moment, reference } from './columns';

export const accountStates = ['connected', 'reconnect'] as const;

/** A shop on a marketplace. Tokens and keys are encrypted. `lane` fields say which worker sends for it now. */
export const account = mysqlTable(
  'account',
  {
    id: id(),
    market: varchar('market', { length: 40 }).notNull(),
    name: varchar('name', { length: 80 }).notNull(),
    remoteName: varchar('remote_name', { length: 120 }).notNull(),
    state: varchar('state', { length: 20 }).notNull().$type<(typeof accountStates)[number]>(),
    secrets: text('secrets').notNull(),
    hookSecret: text('hook_secret'),
    hookKey: varchar('hook_key', { length: 40 }).notNull().unique(),
    exceptions: document<AccountExceptions>('exceptions').notNull(),
    defaults: document<Record<string, Json>>('defaults').notNull(),
    /** What the account calls things otherwise than the rules foresee: field → ours → theirs; null for nothing. */
    maps: document<Record<string, Record<string, string>> | null>('maps'),
    footer: varchar('footer', { length: 500 }).notNull().default(''),
    houseTag: varchar('house_tag', { length: 60 }).notNull().default(''),
    /** The language of its texts, as its seller calls it; empty for that in which items are written. */
    language: varchar('language', { length: 20 }).notNull().default(''),
    pricing: document<Pricing | null>('pricing'),
    packaging: document<PackagingAllowance | null>('packaging'),
    autoDraft: boolean('auto_draft').notNull().default(true),
    /** Which items are meant for it, unless a person says otherwise; null for all. */
    belongs: document<Filter | null>('belongs'),
    rulesVersion: int('rules_version').notNull().default(0),
    /** How often that with which its listings are computed has become another: rules, settings, mappings, templates, rates. */
    contextVersion: int('context_version').notNull().default(0),
    /** How far their clock is ahead of ours, and was before it was set anew, in milliseconds; and when that was heard. */
    clockAheadMs: bigint('clock_ahead_ms', { mode: 'number' }).notNull().default(0),
    clockBeforeMs: bigint('clock_before_ms', { mode: 'number' }).notNull().default(0),
    clockChangedAt: moment('clock_changed_at'),
    lockedUntil: moment('locked_until'),
    /** What the seller wants below what the marketplace allows; null for all of it. */
    ownPace: document<OwnPace | null>('own_pace'),
    /** Nothing is sent until a person lets it go on. */
    pausedAt: moment('paused_at'),
    /** They warned of too many new listings: no new ones until then. */
    warnedUntil: moment('warned_until'),
    /** They do not answer, since when, how many silences in a row, and when they are asked again. */
    unwellSince: moment('unwell_since'),
    probeAt: moment('probe_at'),
    silences: int('silences').notNull().default(0),
    /** What is done when only they changed a field. */
    driftRules: document<DriftRules>('drift_rules').notNull().default({}),
    /** Units that are never offered there, and the most that are; null for no cap. */
    stockReserve: int('stock_reserve').notNull().default(0),
    stockCap: int('stock_cap'),
    /** The account whose warehouse sends what is sold here, too; null where none does. */
    servedBy: reference('served_by'),
    /** A cancelled order's item is listed again by itself. */
    relistCancelled: boolean('relist_cancelled').notNull().default(true),
    /** Ending and making anew by a daily plan; null for none. */
    renewal: document<RenewalRule | null>('renewal'),
    /** What is done with offers by itself; null for nothing. */
    offerRule: document<OfferRule | null>('offer_rule'),
    /** When all listings there were last compared with what we hold. */
    comparedAt: moment('compared_at'),
    lastError: varchar('last_error', { length: 300 }),
    ordersSince: moment('orders_since'),
    polledAt: moment('polled_at'),
    /** When everything that they had to tell of orders was last heard. */
    heardAt: moment('heard_at'),
    /** Brought back from a backup: nothing is sent before it has been heard and compared; null once that is done. */
    restoredAt: moment('restored_at'),
    /** Who is asking for new tokens just now, and until when nobody else does. */
    renewingBy: varchar('renewing_by', { length: 60 }),
    renewingUntil: moment('renewing_until'),
    laneOwner: varchar('lane_owner', { length: 60 }),
    laneUntil: moment('lane_until'),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [uniqueIndex('account_shop').on(table.market, table.remoteName)],
);

export type AccountRow = typeof account.$inferSelect;

/** A marketplace's rules by version, as they were read and checked. */
export const marketRules = mysqlTable(
  'market_rules',
  {
    market: varchar('market', { length: 40 }).notNull(),
    version: int('version').notNull(),
    doc: document<MarketRules>('doc').notNull(),
    readAt: moment('read_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.market, table.version] })],
);

/** Own category → a marketplace's, as chosen by a person. */
export const categoryMap = mysqlTable(
  'category_map',
  {
    market: varchar('market', { length: 40 }).notNull(),
    ownCategory: varchar('own_category', { length: 120 }).notNull(),
    categoryId: varchar('category_id', { length: 60 }).notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.market, table.ownCategory] })],
);

/**
 * Where an item and an account cross. `sent` is what we last sent and they confirmed, `base` what they showed right
 * then, `seen` what they last showed. The state is derived by the database from the facts, with the core's rules.
 */
export const listing = mysqlTable(
  'listing',
  {
    id: id(),
    itemId: reference('item_id').notNull(),
    accountId: reference('account_id').notNull(),
    overrides: document<Overrides>('overrides').notNull(),
    /** The price written for this marketplace alone; null follows the item. */
    overridePrice: minor('override_price'),
    wantedPrice: minor('wanted_price'),
    sentPrice: minor('sent_price'),
    /** The most units that may be offered there, by its rules or as written here. */
    quantityCap: int('quantity_cap').notNull().default(1_000_000),
    wantedQuantity: int('wanted_quantity').notNull().default(0),
    sentQuantity: int('sent_quantity'),
    /** Something other than price and quantity differs from what was sent. */
    contentDirty: boolean('content_dirty').notNull().default(false),
    dirty: boolean('dirty').generatedAlwaysAs(
      sql.raw(
        '`content_dirty` = 1 or coalesce(`wanted_price` <> `sent_price`, 0) or coalesce(`wanted_quantity` <> `sent_quantity`, 0)',
      ),
      { mode: 'stored' },
    ),
    wanted: varchar('wanted', { length: 8 }).notNull().$type<ListingFacts['wanted']>(),
    remote: varchar('remote', { length: 8 }).notNull().default('none').$type<ListingFacts['remote']>(),
    /** A person has said that the item is, or is not, for this account: no rule decides that any more. */
    chosen: boolean('chosen').notNull().default(false),
    drifted: boolean('drifted').notNull().default(false),
    busy: boolean('busy').notNull().default(false),
    problem: boolean('problem').notNull().default(false),
    /** How many issues block it, as computed at the last save. */
    blocking: smallint('blocking').notNull().default(0),
    sent: document<Content | null>('sent'),
    base: document<Content | null>('base'),
    seen: document<Content | null>('seen'),
    /** How often it was made there; some marketplaces never take a stock number twice. */
    timesMade: smallint('times_made').notNull().default(0),
    /** Why their review refused it. */
    refusal: varchar('refusal', { length: 500 }),
    /** The field that it is about, where they said so. */
    refusalField: varchar('refusal_field', { length: 80 }),
    remoteId: varchar('remote_id', { length: 60 }),
    remoteUrl: varchar('remote_url', { length: 300 }),
    liveSince: moment('live_since'),
    /** When the marketplace renews it by itself, and may charge for it. */
    renewsAt: moment('renews_at'),
    /** Open offers, as last seen: while there are any it cannot be ended on some marketplaces. */
    offersOpen: smallint('offers_open').notNull().default(0),
    /** When it ends by itself; bids of a timed sale, and the highest of them. */
    endsAt: moment('ends_at'),
    bids: smallint('bids').notNull().default(0),
    highestBid: minor('highest_bid'),
    sentAt: moment('sent_at'),
    seenAt: moment('seen_at'),
    state: varchar('state', { length: 10 })
      .$type<KnotState>()
      .generatedAlwaysAs(sql.raw(stateSql()), { mode: 'stored' }),
  },
  (table) => [
    uniqueIndex('listing_knot').on(table.itemId, table.accountId),
    // One for stages and for accounts: each index on the state is written anew with every change of a price.
    index('listing_stage').on(table.state, table.accountId, table.itemId, table.blocking),
    index('listing_remote').on(table.accountId, table.remoteId),
    index('listing_live_since').on(table.accountId, table.liveSince),
  ],
);

/**
 * What is left of each listing's price, as it was computed last, with what it was computed from: one that was computed from
 * something else is computed anew before it is asked for.
 */
export const listingNet = mysqlTable('listing_net', {
  listingId: reference('listing_id').primaryKey(),
  itemVersion: int('item_version').notNull(),
  price: minor('price').notNull(),
  /** Stands for the account's fees, postage, packing, rate and defaults. */
  stamp: varchar('stamp', { length: 40 }).notNull(),
  net: minor('net').notNull(),
});

export type ListingRow = typeof listing.$inferSelect;

/** Numbers that a listing had there before: it was renewed, ended, or its link was cut. */
export const previousRemoteId = mysqlTable(
  'previous_remote_id',
  {
    id: id(),
    listingId: reference('listing_id').notNull(),
    accountId: reference('account_id').notNull(),
    remoteId: varchar('remote_id', { length: 60 }).notNull(),
    remoteUrl: varchar('remote_url', { length: 300 }),
    liveSince: moment('live_since'),
    why: varchar('why', { length: 12 }).notNull().$type<'renewed' | 'made-again' | 'cut'>(),
    at: moment('at').notNull(),
  },
  (table) => [
    index('previous_listing').on(table.listingId),
    index('previous_remote').on(table.accountId, table.remoteId),
  ],
);

/** A photo that a marketplace already has, so that it is uploaded once. */
export const remotePhoto = mysqlTable(
  'remote_photo',
  {
    accountId: reference('account_id').notNull(),
    /** A photo's reference: its hash, and the shape it was brought to, or how a printable is made of it. */
    hash: varchar('hash', { length: 220 }).notNull(),
    remoteId: varchar('remote_id', { length: 80 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.hash] })],
);
