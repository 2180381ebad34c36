import { boolean, double, index, int, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { Content } from '../../core/listing';
import { document, id, minor, moment, reference } from './columns';

/** `gone`: it was chosen, and did not stand there any more when it was read anew. */
export const foundStates = ['live', 'review', 'off', 'ended', 'sold', 'refused'] as const;
export type FoundState = (typeof foundStates)[number] | 'gone';

export type FoundFacts = {
  called: string;
  renewsAt: string | null;
  endsAt: string | null;
  offersOpen: number;
  bids: number;
  highestBid: number | null;
};

/** A listing that was found on an account, as it stood there when it was read; whether it is in already is told by the links. */
export const foundListing = mysqlTable(
  'found_listing',
  {
    id: id(),
    accountId: reference('account_id').notNull(),
    remoteId: varchar('remote_id', { length: 60 }).notNull(),
    url: varchar('url', { length: 300 }).notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<FoundState>(),
    sku: varchar('sku', { length: 100 }).notNull(),
    title: varchar('title', { length: 300 }).notNull(),
    section: varchar('section', { length: 60 }).notNull(),
    price: minor('price'),
    quantity: int('quantity'),
    content: document<Content>('content').notNull(),
    photos: document<{ id: string; url: string }[]>('photos').notNull(),
    /** What a link needs to know of it besides its content. */
    facts: document<FoundFacts>('facts').notNull(),
    /** When it was made there; when it was read where they do not say. */
    madeAt: moment('made_at').notNull(),
    readAt: moment('read_at').notNull(),
    /** The bringing in that it was chosen for last. */
    gatheringId: reference('gathering_id'),
    /** Its photos here, by their hashes, in their order there; null before they are fetched. */
    hashes: document<(string | null)[] | null>('hashes'),
    /** Which of the chosen ones are one thing with it: the smallest of their ids. */
    thing: reference('thing'),
    /** The item of ours that it is to be joined to, where there is one. */
    joinItem: reference('join_item'),
    /** The item that it was brought into. */
    itemId: reference('item_id'),
    /** Why it was not brought in, or what could not be taken along. */
    said: varchar('said', { length: 300 }),
  },
  (table) => [
    uniqueIndex('found_once').on(table.accountId, table.remoteId),
    index('found_newest').on(table.accountId, table.madeAt, table.id),
    index('found_gathering').on(table.gatheringId, table.thing),
  ],
);
export type FoundRow = typeof foundListing.$inferSelect;

export const gatheringModes = ['at-once', 'one-by-one'] as const;
export const gatheringStates = ['working', 'asking', 'done'] as const;

/** Listings that a person brings in, in one go. */
export const gathering = mysqlTable(
  'gathering',
  {
    id: id(),
    title: varchar('title', { length: 200 }).notNull(),
    mode: varchar('mode', { length: 10 }).notNull().$type<(typeof gatheringModes)[number]>(),
    /** Field → the account whose value is taken wherever it says something. */
    prefer: document<Record<string, string>>('prefer').notNull(),
    state: varchar('state', { length: 8 }).notNull().$type<(typeof gatheringStates)[number]>(),
    taskId: reference('task_id'),
    chosen: int('chosen').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [index('gathering_at').on(table.at)],
);
export type GatheringRow = typeof gathering.$inferSelect;

/** What came of it: one item for each thing, with what was taken from whom. */
export const gatheredItem = mysqlTable(
  'gathered_item',
  {
    gatheringId: reference('gathering_id').notNull(),
    itemId: reference('item_id').notNull(),
    /** It was made; else it was there, and listings were joined to it. */
    isNew: boolean('is_new').notNull(),
    /** Field → the account that it was taken from. */
    taken: document<Record<string, string>>('taken').notNull(),
    said: varchar('said', { length: 300 }),
    /** It was looked through in the sitting. */
    isDone: boolean('is_done').notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.gatheringId, table.itemId] })],
);

/** Two things that may be one, with what speaks for it; decided by a person. */
export const matchQuestion = mysqlTable(
  'match_question',
  {
    id: id(),
    gatheringId: reference('gathering_id').notNull(),
    a: varchar('a', { length: 90 }).notNull(),
    b: varchar('b', { length: 90 }).notNull(),
    score: double('score').notNull(),
    evidence: document<{ said: string; weight: number }[]>('evidence').notNull(),
    answer: varchar('answer', { length: 9 }).$type<'same' | 'different' | 'later'>(),
  },
  (table) => [uniqueIndex('question_once').on(table.gatheringId, table.a, table.b)],
);

/** What somebody has said of two things, whichever of them is named first: it is not asked again. */
export const matchDecision = mysqlTable(
  'match_decision',
  {
    a: varchar('a', { length: 90 }).notNull(),
    b: varchar('b', { length: 90 }).notNull(),
    isSame: boolean('is_same').notNull(),
    byName: varchar('by_name', { length: 120 }).notNull(),
    at: moment('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.a, table.b] })],
);
