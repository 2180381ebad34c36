import { eq } from 'drizzle-orm';
import { compareRules, type MarketRules, marketRulesSchema, type RuleChange } from '../../core/rules';
import { database } from '../../db/client';
import type { AccountRow } from '../../db/schema';
import { account, marketRules } from '../../db/schema';
import { connectorOf } from '../../markets';
import { sessionFor } from '../access/market-session';
import { loadAccounts } from '../records/load-accounts';
import { recheckListings } from '../records/recheck-listings';

async function storeRules(rules: MarketRules): Promise<void> {
  await database()
    .insert(marketRules)
    .values({ market: rules.market, version: rules.version, doc: rules, readAt: new Date() })
    .onDuplicateKeyUpdate({ set: { doc: rules, readAt: new Date() } });
}

/** Reads the marketplace's rules and the account's exceptions; returns what changed since the version known before. */
export async function refreshRules(row: AccountRow): Promise<RuleChange[]> {
  const connector = connectorOf(row.market);
  const session = sessionFor(row, 300);
  const rules = marketRulesSchema.parse(await connector.readRules(session));
  const { exceptions } = await connector.readAccount(session);
  const before = (await loadAccounts(database(), [row.id]))[0]?.compiled.rules;
  await storeRules(rules);
  await database().update(account).set({ rulesVersion: rules.version, exceptions }).where(eq(account.id, row.id));
  if (!before || before.version === rules.version) return [];
  await recheckListings(row.id);
  return compareRules(before, rules);
}
