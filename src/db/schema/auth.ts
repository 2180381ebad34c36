import { bigint, boolean, index, int, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core';
import { roles } from '../../core/access';
import { id, moment } from './columns';

/** People and their sessions, in the shape that the sign-in library keeps. */
export const authUser = mysqlTable('auth_user', {
  id: varchar('id', { length: 36 }).primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  email: varchar('email', { length: 190 }).notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  role: varchar('role', { length: 12, enum: roles }).notNull().default('packer'),
  /** Signing in takes a second step. */
  twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
  createdAt: moment('created_at').notNull(),
  updatedAt: moment('updated_at').notNull(),
});

export const authSession = mysqlTable(
  'auth_session',
  {
    id: varchar('id', { length: 36 }).primaryKey(),
    userId: varchar('user_id', { length: 36 }).notNull(),
    token: varchar('token', { length: 190 }).notNull().unique(),
    expiresAt: moment('expires_at').notNull(),
    ipAddress: varchar('ip_address', { length: 64 }),
    userAgent: text('user_agent'),
    createdAt: moment('created_at').notNull(),
    updatedAt: moment('updated_at').notNull(),
  },
  (table) => [index('session_user').on(table.userId)],
);

export const authCredential = mysqlTable(
  'auth_credential',
  {
    id: varchar('id', { length: 36 }).primaryKey(),
    accountId: varchar('account_id', { length: 190 }).notNull(),
    providerId: varchar('provider_id', { length: 60 }).notNull(),
    userId: varchar('user_id', { length: 36 }).notNull(),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: moment('access_token_expires_at'),
    refreshTokenExpiresAt: moment('refresh_token_expires_at'),
    scope: text('scope'),
    password: text('password'),
    createdAt: moment('created_at').notNull(),
    updatedAt: moment('updated_at').notNull(),
  },
  (table) => [index('credential_user').on(table.userId)],
);

export const authVerification = mysqlTable('auth_verification', {
  id: varchar('id', { length: 36 }).primaryKey(),
  identifier: varchar('identifier', { length: 190 }).notNull(),
  value: text('value').notNull(),
  expiresAt: moment('expires_at').notNull(),
  createdAt: moment('created_at'),
  updatedAt: moment('updated_at'),
});

/** What the second step of signing in is checked with; secret and codes are encrypted. */
export const authTwoFactor = mysqlTable(
  'auth_two_factor',
  {
    id: varchar('id', { length: 36 }).primaryKey(),
    userId: varchar('user_id', { length: 36 }).notNull(),
    secret: text('secret').notNull(),
    backupCodes: text('backup_codes').notNull(),
    verified: boolean('verified').notNull().default(false),
    failedVerificationCount: int('failed_verification_count').notNull().default(0),
    lockedUntil: moment('locked_until'),
  },
  (table) => [index('two_factor_user').on(table.userId)],
);

/** Counts of tries, so that guessing is slowed also across restarts and processes. */
export const authRateLimit = mysqlTable('auth_rate_limit', {
  id: varchar('id', { length: 190 }).primaryKey(),
  key: varchar('key', { length: 190 }).notNull().unique(),
  count: int('count').notNull(),
  lastRequest: bigint('last_request', { mode: 'number' }).notNull(),
});

/** Tokens for programs; only a hash is kept. */
export const apiToken = mysqlTable('api_token', {
  id: id(),
  name: varchar('name', { length: 80 }).notNull(),
  hash: varchar('hash', { length: 64 }).notNull().unique(),
  userId: varchar('user_id', { length: 36 }).notNull(),
  /** What it may do at most; never more than whom it belongs to. */
  role: varchar('role', { length: 12, enum: roles }).notNull().default('packer'),
  createdAt: moment('created_at').notNull(),
  lastUsedAt: moment('last_used_at'),
  /** From then on it opens nothing; null for one of before tokens ended. */
  expiresAt: moment('expires_at'),
});
export type ApiTokenRow = typeof apiToken.$inferSelect;

/** A link by which one person may join the shop, once; only a hash of it is kept. */
export const invitation = mysqlTable('invitation', {
  id: id(),
  hash: varchar('hash', { length: 64 }).notNull().unique(),
  role: varchar('role', { length: 12, enum: roles }).notNull(),
  /** Whom it is for, in the words of who invited. */
  forWhom: varchar('for_whom', { length: 120 }).notNull(),
  byName: varchar('by_name', { length: 120 }).notNull(),
  createdAt: moment('created_at').notNull(),
  expiresAt: moment('expires_at').notNull(),
});

/** What was done about the people of the shop and its accounts, and who signed in, or tried to. */
export const peopleEvent = mysqlTable('people_event', {
  id: id(),
  at: moment('at').notNull(),
  kind: varchar('kind', { length: 8, enum: ['change', 'sign-in'] })
    .notNull()
    .default('change'),
  byName: varchar('by_name', { length: 120 }).notNull(),
  what: varchar('what', { length: 300 }).notNull(),
});
