import { sql } from 'drizzle-orm';
import { bigint, boolean, index, int, mysqlTable, smallint, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { Content } from '../../core/listing';
import type { SummaryLine } from '../../core/summary';
import type { OfferState } from '../../core/sync';
import { document, id, minor, moment, reference } from './columns';

export type JobStory = { at: string; text: string };
/** What exactly was sent, kept before sending, so that a repeat says the same. */
export type FrozenRequest = {
  kind: 'create' | 'update' | 'end';
  content: Content;
  fields: string[];
  photoIds: string[];
  clipId?: string;
  firstSentAt: string;
  /** Of a creation: the listing that is switched on again, instead of a new one. */
  switchesOn?: string;
  /** Of a creation that was not answered: from when on none of its requests can be under way any more. */
  openSince?: string;
  /** What was known of these fields before: it is so again when they say that they did not take them. */
  known?: { sent: Content; base: Content };
};

/**
 * The outbox. `liveListing` is the listing's id while the job waits or runs and null afterwards: its unique index
 * keeps it to one live job a listing. `generation` counts changes that joined.
 */
export const job = mysqlTable(
  'job',
  {
    id: id(),
    listingId: reference('listing_id').notNull(),
    liveListing: reference('live_listing'),
    accountId: reference('account_id').notNull(),
    runId: reference('run_id'),
    priority: smallint('priority').notNull(),
    /** To bring it to what is wanted, or to end it and make it anew. */
    kind: varchar('kind', { length: 6 }).notNull().default('sync').$type<'sync' | 'renew'>(),
    state: varchar('state', { length: 10 })
      .notNull()
      .default('waiting')
      .$type<'waiting' | 'held' | 'running' | 'done' | 'failed' | 'skipped'>(),
    /** The listing's fields that it is about; null for all that differ. */
    only: document<string[] | null>('only_fields'),
    generation: int('generation').notNull().default(1),
    attempts: smallint('attempts').notNull().default(0),
    dueAt: moment('due_at').notNull(),
    leaseOwner: varchar('lease_owner', { length: 60 }),
    /** Counts how often it was taken to be worked on: what an earlier taker finds out is not kept. */
    lease: int('lease').notNull().default(0),
    idempotencyKey: varchar('idempotency_key', { length: 60 }),
    request: document<FrozenRequest | null>('request'),
    outcome: varchar('outcome', { length: 20 }).$type<'created' | 'changed' | 'ended' | 'renewed' | 'nothing'>(),
    errorCode: varchar('error_code', { length: 30 }),
    message: varchar('message', { length: 500 }),
    fix: varchar('fix', { length: 300 }),
    field: varchar('field', { length: 80 }),
    story: document<JobStory[]>('story'),
    createdAt: moment('created_at').notNull(),
    finishedAt: moment('finished_at'),
  },
  (table) => [
    uniqueIndex('job_live').on(table.liveListing),
    index('job_lane').on(table.accountId, table.state, table.priority, table.id),
    index('job_state').on(table.state, table.id),
    index('job_run').on(table.runId, table.state),
    index('job_listing').on(table.listingId, table.id),
    index('job_finished').on(table.finishedAt),
  ],
);

export const taskKinds = [
  'publish',
  'edit',
  'undo',
  'recheck',
  'target',
  'export',
  'check',
  'import',
  'survey',
  'gather',
  'photos',
  'look',
  'pricing',
  'lots',
  'prints',
] as const;
export const taskStates = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;

/**
 * Long work that is not sending, and what a person asked for at a later time. One worker at a time holds it by a lease;
 * what is done is kept with `cursor` in the same transaction, so that it goes on after a kill and does nothing twice.
 */
export const task = mysqlTable(
  'task',
  {
    id: id(),
    kind: varchar('kind', { length: 10 }).notNull().$type<(typeof taskKinds)[number]>(),
    title: varchar('title', { length: 200 }).notNull(),
    input: document<unknown>('input').notNull(),
    /** How far it has come; null before its first step. */
    cursor: document<unknown>('cursor_value'),
    doneCount: int('done_count').notNull().default(0),
    totalCount: int('total_count').notNull().default(0),
    state: varchar('state', { length: 8 }).notNull().default('waiting').$type<(typeof taskStates)[number]>(),
    /** A person wants it to end; the one who holds it does so between two steps. */
    stopAsked: boolean('stop_asked').notNull().default(false),
    dueAt: moment('due_at').notNull(),
    leaseOwner: varchar('lease_owner', { length: 60 }),
    leaseUntil: moment('lease_until'),
    runId: reference('run_id'),
    result: document<unknown>('result'),
    message: varchar('message', { length: 300 }),
    byId: varchar('by_id', { length: 40 }).notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
    startedAt: moment('started_at'),
    finishedAt: moment('finished_at'),
  },
  (table) => [index('task_due').on(table.state, table.dueAt), index('task_run').on(table.runId)],
);
export type TaskRow = typeof task.$inferSelect;

/** Workers that are there: each says so every few seconds, and they share the accounts among them. */
export const workerPresence = mysqlTable('worker_presence', {
  name: varchar('name', { length: 60 }).primaryKey(),
  seenAt: moment('seen_at').notNull(),
});

/** Events heard from marketplaces, kept before they are answered; worked off by the worker. */
export const inbox = mysqlTable(
  'inbox',
  {
    id: id(),
    messageId: varchar('message_id', { length: 120 }).notNull().unique(),
    accountId: reference('account_id').notNull(),
    type: varchar('type', { length: 30 }).notNull(),
    data: document<Record<string, unknown>>('data').notNull(),
    state: varchar('state', { length: 10 }).notNull().default('waiting').$type<'waiting' | 'done' | 'failed'>(),
    attempts: smallint('attempts').notNull().default(0),
    dueAt: moment('due_at').notNull(),
    message: text('message'),
    receivedAt: moment('received_at').notNull(),
  },
  (table) => [index('inbox_due').on(table.state, table.dueAt)],
);

/** What buyers would pay, as the marketplaces last told it, and how it was answered from here. */
export const offer = mysqlTable(
  'offer',
  {
    id: id(),
    accountId: reference('account_id').notNull(),
    listingId: reference('listing_id').notNull(),
    remoteId: varchar('remote_id', { length: 60 }).notNull(),
    amount: minor('amount').notNull(),
    buyer: varchar('buyer', { length: 120 }).notNull(),
    words: varchar('words', { length: 1_000 }).notNull(),
    state: varchar('state', { length: 10 }).notNull().$type<OfferState>(),
    /** What we would take instead. */
    counter: minor('counter'),
    madeAt: moment('made_at').notNull(),
    deadline: moment('deadline').notNull(),
    /** Somebody's answer is on its way since then. */
    answeringAt: moment('answering_at'),
    answeredBy: varchar('answered_by', { length: 120 }),
    seenAt: moment('seen_at').notNull(),
  },
  (table) => [
    uniqueIndex('offer_there').on(table.accountId, table.remoteId),
    index('offer_open').on(table.state, table.listingId),
    index('offer_listing').on(table.listingId),
  ],
);

export const sale = mysqlTable(
  'sale',
  {
    id: id(),
    accountId: reference('account_id'),
    orderId: varchar('order_id', { length: 60 }).notNull(),
    /** Which line of the order. */
    line: smallint('line').notNull().default(0),
    itemId: reference('item_id'),
    listingId: reference('listing_id'),
    sku: varchar('sku', { length: 40 }).notNull(),
    title: varchar('title', { length: 300 }).notNull(),
    quantity: int('quantity').notNull(),
    unitPrice: minor('unit_price').notNull(),
    total: minor('total').notNull(),
    fee: minor('fee').notNull(),
    /** What of the fee was for taking the payment, for sending or making the thing, and what its rules do not explain: the rest is commission. Null where nobody divided it. */
    feePayment: minor('fee_payment'),
    feeHandling: minor('fee_handling'),
    feeOther: minor('fee_other'),
    cost: minor('cost'),
    /** What the buyer paid for postage besides, and what was taken off: in the currency of the sale. */
    buyerPostage: minor('buyer_postage').notNull().default(0),
    discount: minor('discount').notNull().default(0),
    /** What the parcel cost the seller, reckoned until it is written down, and its packing: in the items' currency. */
    postage: minor('postage').notNull().default(0),
    packing: minor('packing').notNull().default(0),
    currency: varchar('currency', { length: 3 }).notNull(),
    /** Millionths of a unit of its currency that one of the items' was worth on its day; null in the items' own, or where no rate was known. */
    rateMillionths: bigint('rate_millionths', { mode: 'number' }),
    /** The combination that was bought: its own key, and what it was called, in words. */
    combination: varchar('combination', { length: 16 }),
    variation: varchar('variation', { length: 200 }),
    /** What the buyer wants on it, such as a name; and whether it is fetched. */
    personal: varchar('personal', { length: 400 }),
    collected: boolean('collected').notNull().default(false),
    buyerTown: varchar('buyer_town', { length: 80 }).notNull().default(''),
    /** More was sold than was there: a person has to cancel one of the orders. */
    oversold: boolean('oversold').notNull().default(false),
    /** It fits no item, or none of its combinations: a person has to say what was sold. */
    unassigned: boolean('unassigned').notNull().default(false),
    state: varchar('state', { length: 10 }).notNull().default('paid').$type<'paid' | 'cancelled'>(),
    /** What they call its state, where it is neither paid nor called off, such as unpaid. */
    rawState: varchar('raw_state', { length: 40 }),
    cancelledAt: moment('cancelled_at'),
    soldAt: moment('sold_at').notNull(),
    /** When anything of it was written last, by the database. */
    changedAt: moment('changed_at').notNull().default(sql`current_timestamp(3) on update current_timestamp(3)`),
  },
  (table) => [
    index('sale_changed').on(table.changedAt),
    uniqueIndex('sale_order').on(table.accountId, table.orderId, table.line),
    index('sale_sold').on(table.soldAt, table.id),
    index('sale_item').on(table.itemId),
    // Few are: the foot of every page counts them.
    index('sale_oversold').on(table.oversold),
    index('sale_unassigned').on(table.unassigned),
  ],
);

/** What needs a person and was put off for some days, with a word why. */
export const needLater = mysqlTable('need_later', {
  need: varchar('need', { length: 80 }).primaryKey(),
  until: moment('until').notNull(),
  why: varchar('why', { length: 200 }).notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  at: moment('at').notNull(),
});

/** What needed a person on a day, as it was told by feed and webhook. */
export const dailySummary = mysqlTable('daily_summary', {
  /** YYYY-MM-DD. */
  day: varchar('day', { length: 10 }).primaryKey(),
  lines: document<SummaryLine[]>('lines').notNull(),
  madeAt: moment('made_at').notNull(),
  sentAt: moment('sent_at'),
  tries: int('tries').notNull().default(0),
  /** When it is tried next; null where nothing is to be sent, or no more. */
  nextTryAt: moment('next_try_at'),
  problem: varchar('problem', { length: 300 }),
});
