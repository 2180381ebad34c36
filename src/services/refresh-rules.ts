import { eq, sql } from 'drizzle-orm';
import { compareRules, type MarketRules, marketRulesSchema, type RuleChange } from '../core/rules';
import { database, transaction } from '../db/client';
import { account, listing, marketRules } from '../db/schema';
import { connectorOf } from '../markets';
import { type AccountRow, loadAccounts } from './account-context';
import { sessionFor } from './market-session';
import { refreshListings } from './refresh-listings';

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

/** Computes every listing of an account anew, in portions, so that what no longer fits is known before it fails. */
export async function recheckListings(accountId: number, portion = 200): Promise<void> {
  const accounts = await loadAccounts(database(), [accountId]);
  for (let after = 0; ; ) {
    const rows = await database()
      .select({ id: listing.id, itemId: listing.itemId })
      .from(listing)
      .where(sql`${listing.accountId} = ${accountId} and ${listing.id} > ${after}`)
      .orderBy(listing.id)
      .limit(portion);
    const last = rows.at(-1);
    if (!last) return;
    await transaction((tx) => refreshListings(tx, [...new Set(rows.map((row) => row.itemId))], accounts));
    after = last.id;
  }
}
