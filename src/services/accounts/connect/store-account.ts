import { randomBytes } from 'node:crypto';
import { and, count, eq, ne } from 'drizzle-orm';
import { config } from '../../../config';
import { NettingError } from '../../../core/errors';
import type { Json } from '../../../core/json';
import { type MarketRules, marketRulesSchema } from '../../../core/rules';
import { database, isDuplicate } from '../../../db/client';
import { account, item, marketRules } from '../../../db/schema';
import { type Access, connectorOf } from '../../../markets';
import type { Actor } from '../../access/actor';
import { trialSession } from '../../access/market-session';
import { noteAboutPeople } from '../../access/note-about-people';
import { seal } from '../../access/vault';

/** `isFirst`: there is no other account, and nothing is recorded yet. */
export type StoredAccount = { accountId: number; isFirst: boolean };

/** Checks the access, reads rules and exceptions, registers for events, keeps the account, and who connected it. */
export async function storeAccount(actor: Actor, market: string, access: Access): Promise<StoredAccount> {
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
  let isAgain = false;
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
    isAgain = true;
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
  await noteAboutPeople(actor, `Connected ${row.name}${isAgain ? ' again' : ''}`);
  const [others] = await db.select({ count: count() }).from(account).where(ne(account.id, row.id));
  const [known] = await db.select({ id: item.id }).from(item).limit(1);
  return { accountId: row.id, isFirst: others?.count === 0 && known === undefined };
}

/** Switches start as the marketplace would have them said; everything else is for a person to choose. */
const firstDefaults = (rules: MarketRules): Record<string, Json> =>
  Object.fromEntries(
    rules.extras.filter((extra) => extra.fallback !== null).map((extra) => [extra.id, extra.fallback]),
  );
