import { and, eq, sql } from 'drizzle-orm';
import { compareRules, type MarketRules, marketRulesSchema, type RuleChange, rulesFor } from '../../../core/rules';
import { database } from '../../../db/client';
import type { AccountRow } from '../../../db/schema';
import { account, marketRules } from '../../../db/schema';
import { connectorOf } from '../../../markets';
import { sessionFor } from '../../access/market-session';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { recheckListings } from '../../records/listings/recheck-listings';

async function storeRules(rules: MarketRules): Promise<void> {
  await database()
    .insert(marketRules)
    .values({ market: rules.market, version: rules.version, doc: rules, readAt: new Date() })
    .onDuplicateKeyUpdate({ set: { doc: rules, readAt: new Date() } });
}

/** So often they are read again when somebody else has stored others meanwhile. */
const mostTries = 3;

/** Reads the marketplace's rules and the account's exceptions; returns what changed since the version known before. */
export async function refreshRules(row: AccountRow): Promise<RuleChange[]> {
  const connector = connectorOf(row.market);
  const session = sessionFor(row, 300);
  for (let tries = 0; tries < mostTries; tries++) {
    // Before they are asked: whatever is stored meanwhile may have been read later, and is not overwritten.
    const [known] = await loadAccounts(database(), [row.id]);
    const before = known?.compiled.rules;
    const rules = marketRulesSchema.parse(await connector.readRules(session));
    const { exceptions, lockedUntil } = await connector.readAccount(session);
    await storeRules(rules);
    // They say it by their clock. Whoever hears that this is another than was known forgets the lock until it is met again.
    const byOurs = lockedUntil && sql`date_sub(${lockedUntil}, interval ${account.clockAheadMs} * 1000 microsecond)`;
    const [{ affectedRows }] = await database()
      .update(account)
      .set({ rulesVersion: rules.version, exceptions, ...(byOurs ? { lockedUntil: byOurs } : {}) })
      .where(and(eq(account.id, row.id), eq(account.rulesVersion, known?.row.rulesVersion ?? row.rulesVersion)));
    if (affectedRows === 0) continue;
    // Limits of its own may have become others without a new version of the rules.
    const isOther = JSON.stringify(known?.row.exceptions) !== JSON.stringify(exceptions);
    if (!before || (before.version === rules.version && !isOther)) return [];
    await recheckListings(row.id);
    return compareRules(before, rulesFor(rules, exceptions));
  }
  return [];
}
