import { createHash, randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../config';
import { NettingError } from '../core/errors';
import type { Json } from '../core/json';
import { noAllowance, type PackagingAllowance, type Rate, type RoundingName, roundings } from '../core/measure';
import { type FeeTable, type Pricing, samePricing } from '../core/price';
import type { ExtraRule, MarketRules } from '../core/rules';
import { marketRulesSchema } from '../core/rules';
import { type DriftRules, fullPace, noRenewal, type OwnPace, paceOn, type RenewalRule } from '../core/sync';
import { database, isDuplicate } from '../db/client';
import { account, categoryMap, marketRules } from '../db/schema';
import { type Access, connectorOf, connectors } from '../markets';
import { type AccountRow, loadAccounts } from './account-context';
import { accountCounts } from './account-counts';
import type { Actor } from './actor';
import { askForTokens, sessionFor, trialSession } from './market-session';
import { recheckListings } from './refresh-rules';
import { seal, unseal } from './vault';

export const callbackPath = '/api/connect/callback';

type Pending = { market: string; verifier: string; expires: number; userId: string };

/** Begins connecting by OAuth: where to send the person, and what to remember meanwhile (sealed, for a cookie). */
export function startConnect(actor: Actor, market: string): { url: string; pending: string; state: string } {
  const connector = connectorOf(market);
  if (connector.access !== 'oauth') throw new NettingError('invalid', `${connector.name} is connected by a key`);
  const verifier = randomBytes(32).toString('base64url');
  const state = randomBytes(16).toString('base64url');
  const url = new URL(`${config.marketsUrl}/${market}/authorize`);
  url.search = new URLSearchParams({
    response_type: 'code',
    client_id: 'Netting',
    redirect_uri: `${config.baseUrl}${callbackPath}`,
    state,
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
  }).toString();
  const pending: Pending = { market, verifier, expires: Date.now() + 600_000, userId: actor.id };
  return { url: url.toString(), pending: seal({ ...pending, state }), state };
}

/** Ends connecting by OAuth with what the marketplace sent back; the state must be the one that was begun here. */
export async function finishConnect(
  actor: Actor,
  sealed: string,
  given: { code?: string; state?: string; error?: string },
): Promise<{ accountId: number }> {
  let pending: Pending & { state: string };
  try {
    pending = unseal<Pending & { state: string }>(sealed);
  } catch {
    throw new NettingError('not-allowed', 'This connection was not begun here', { mend: 'Begin again' });
  }
  if (pending.state !== given.state || pending.expires < Date.now() || pending.userId !== actor.id)
    throw new NettingError('not-allowed', 'This connection was begun too long ago or elsewhere', {
      mend: 'Begin again',
    });
  if (given.error || !given.code)
    throw new NettingError('not-allowed', `${connectorOf(pending.market).name} was not allowed to connect`, {
      mend: 'Begin again and allow it',
    });
  const access = await askForTokens(pending.market, {
    grant_type: 'authorization_code',
    code: given.code,
    redirect_uri: `${config.baseUrl}${callbackPath}`,
    code_verifier: pending.verifier,
  });
  return storeAccount(pending.market, access);
}

export const connectByKeySchema = z
  .object({ market: z.string(), key: z.string().trim().min(8, 'This is too short for a key').max(200) })
  .strict();

export async function connectByKey(
  _actor: Actor,
  { market, key }: z.infer<typeof connectByKeySchema>,
): Promise<{ accountId: number }> {
  if (connectorOf(market).access !== 'key')
    throw new NettingError('invalid', `${connectorOf(market).name} is connected on its own page`);
  return storeAccount(market, { kind: 'key', key });
}

/** Checks the access, reads rules and exceptions, registers for events, and keeps the account. */
async function storeAccount(market: string, access: Access): Promise<{ accountId: number }> {
  const connector = connectorOf(market);
  const session = trialSession(market, access);
  const { remoteName, exceptions } = await connector.readAccount(session);
  const rules = marketRulesSchema.parse(await connector.readRules(session));
  const db = database();
  await db
    .insert(marketRules)
    .values({ market, version: rules.version, doc: rules, readAt: new Date() })
    .onDuplicateKeyUpdate({ set: { readAt: new Date() } });
  const hookKey = randomBytes(18).toString('base64url');
  const name =
    remoteName.length > 12 ||
    (await db.select({ id: account.id }).from(account).where(eq(account.market, market))).length
      ? `${connector.name} ${remoteName}`
      : connector.name;
  try {
    await db.insert(account).values({
      market,
      name: name.slice(0, 80),
      remoteName,
      state: 'connected',
      secrets: seal(access),
      hookKey,
      exceptions,
      defaults: firstDefaults(rules),
      rulesVersion: rules.version,
      createdAt: new Date(),
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    await db
      .update(account)
      .set({ state: 'connected', secrets: seal(access), exceptions, rulesVersion: rules.version, lastError: null })
      .where(and(eq(account.market, market), eq(account.remoteName, remoteName)));
  }
  const [row] = await db
    .select()
    .from(account)
    .where(and(eq(account.market, market), eq(account.remoteName, remoteName)));
  if (!row) throw new NettingError('not-found', 'The account could not be kept');
  if (connector.hasWebhooks) {
    const { secret } = await connector.registerWebhook(session, `${config.baseUrl}/api/webhooks/${row.hookKey}`);
    await db
      .update(account)
      .set({ hookSecret: seal(secret) })
      .where(eq(account.id, row.id));
  }
  return { accountId: row.id };
}

/** Switches start as the marketplace would have them said; everything else is for a person to choose. */
const firstDefaults = (rules: MarketRules): Record<string, Json> =>
  Object.fromEntries(
    rules.extras.filter((extra) => extra.fallback !== null).map((extra) => [extra.id, extra.fallback]),
  );

export type AccountView = {
  id: number;
  market: string;
  marketName: string;
  about: string;
  name: string;
  remoteName: string;
  state: AccountRow['state'];
  lockedUntil: string | null;
  lastError: string | null;
  rulesVersion: number;
  titleMax: number | null;
  currency: string;
  live: number;
  pacing: { perMinute: number; newPerDay: number };
  renewDays: number | null;
  extras: ExtraRule[];
  defaults: Record<string, Json>;
  footer: string;
  houseTag: string;
  pricing: Pricing;
  packaging: PackagingAllowance;
  rate: Rate | null;
  fees: FeeTable;
  autoDraft: boolean;
  pace: OwnPace;
  /** What holds today, after the marketplace's limits, the seller's own and a slow start. */
  paceToday: { perMinute: number; newToday: number; madeToday: number };
  paused: boolean;
  reserve: number;
  cap: number | null;
  relistCancelled: boolean;
  driftRules: DriftRules;
  renewal: RenewalRule;
  comparedAt: string | null;
};

export type MarketChoice = {
  market: string;
  name: string;
  about: string;
  access: 'oauth' | 'key';
  keyPage: string | null;
};

export async function findAccounts(): Promise<{ accounts: AccountView[]; available: MarketChoice[] }> {
  const db = database();
  const [loaded, countsOf] = await Promise.all([loadAccounts(db), accountCounts(db)]);
  return {
    accounts: loaded.map(({ row, rate, compiled: { rules } }) => ({
      id: row.id,
      market: row.market,
      marketName: rules.name,
      about: connectorOf(row.market).about,
      name: row.name,
      remoteName: row.remoteName,
      state: row.state,
      lockedUntil: row.lockedUntil && row.lockedUntil > new Date() ? row.lockedUntil.toISOString() : null,
      lastError: row.lastError,
      rulesVersion: row.rulesVersion,
      titleMax: rules.title?.max ?? null,
      currency: rules.currency,
      live: countsOf(row.id).live,
      pacing: rules.pacing,
      renewDays: rules.renewDays,
      extras: rules.extras,
      defaults: row.defaults,
      footer: row.footer,
      houseTag: row.houseTag,
      pricing: row.pricing ?? samePricing,
      packaging: row.packaging ?? noAllowance,
      rate,
      fees: rules.fees,
      autoDraft: row.autoDraft,
      pace: row.ownPace ?? fullPace,
      paceToday: {
        ...paceOn(rules.pacing, row.ownPace ?? fullPace, new Date()),
        madeToday: countsOf(row.id).today,
      },
      paused: row.pausedAt !== null,
      reserve: row.stockReserve,
      cap: row.stockCap,
      relistCancelled: row.relistCancelled,
      driftRules: row.driftRules,
      renewal: row.renewal ?? noRenewal,
      comparedAt: row.comparedAt?.toISOString() ?? null,
    })),
    available: connectors.map(({ market, name, about, access }) => ({
      market,
      name,
      about,
      access,
      keyPage: access === 'key' ? `${config.marketsUrl}/${market}/account/key` : null,
    })),
  };
}

const json: z.ZodType<Json> = z.json();
export const updateAccountSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    footer: z.string().max(500),
    houseTag: z.string().trim().max(60),
    pricing: z
      .object({
        mode: z.enum(['same', 'percent', 'keep']),
        basisPoints: z.number().int().min(-9_000).max(100_000),
        addPostage: z.boolean(),
        rounding: z.enum(Object.keys(roundings) as [RoundingName, ...RoundingName[]]), // never empty: the list of roundings
      })
      .strict(),
    packaging: z
      .object({ basisPoints: z.number().int().min(0).max(10_000), atLeastGrams: z.number().int().min(0).max(10_000) })
      .strict(),
    autoDraft: z.boolean(),
    defaults: z.record(z.string().max(60), json),
  })
  .partial()
  .strict();

/** Changes an account's name, footer and defaults; listings are computed anew with them. */
export async function updateAccount(
  _actor: Actor,
  id: number,
  input: z.infer<typeof updateAccountSchema>,
): Promise<void> {
  const [row] = await database().select().from(account).where(eq(account.id, id));
  if (!row) throw new NettingError('not-found', 'There is no such account');
  const defaults = input.defaults ? { ...row.defaults, ...input.defaults } : row.defaults;
  for (const key of Object.keys(defaults)) if (defaults[key] === null || defaults[key] === '') delete defaults[key];
  await database()
    .update(account)
    .set({ ...input, defaults })
    .where(eq(account.id, id));
  if (Object.keys(input).some((field) => field !== 'name' && field !== 'autoDraft')) await recheckListings(id);
}

export const mapCategorySchema = z
  .object({ ownCategory: z.string().min(1).max(120), categoryId: z.string().min(1).max(60) })
  .strict();

/** Says which of a marketplace's categories stands for one of ours, for every item of that category. */
export async function mapCategory(
  actor: Actor,
  accountId: number,
  input: z.infer<typeof mapCategorySchema>,
): Promise<void> {
  const [found] = await loadAccounts(database(), [accountId]);
  if (!found) throw new NettingError('not-found', 'There is no such account');
  const target = found.compiled.categoryById.get(input.categoryId);
  if (!target?.leaf)
    throw new NettingError('invalid', 'Choose a category of the deepest level', { field: 'categoryId' });
  const { market } = found.compiled.rules;
  await database()
    .insert(categoryMap)
    .values({ market, ...input, byName: actor.name, at: new Date() })
    .onDuplicateKeyUpdate({ set: { categoryId: input.categoryId, byName: actor.name, at: new Date() } });
  const accounts = await database().select({ id: account.id }).from(account).where(eq(account.market, market));
  for (const { id } of accounts) await recheckListings(id);
}

/** A session for a stored account, for what is done outside the worker. */
export const openAccount = async (id: number, urgent = false) => {
  const [found] = await loadAccounts(database(), [id]);
  if (!found) throw new NettingError('not-found', 'There is no such account');
  return {
    account: found,
    session: sessionFor(found.row, found.compiled.rules.pacing.perMinute, urgent),
    connector: connectorOf(found.row.market),
  };
};
