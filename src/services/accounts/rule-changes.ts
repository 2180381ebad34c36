import { desc, eq, sql } from 'drizzle-orm';
import { compareRules, type RuleChange } from '../../core/rules';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { marketRules } from '../../db/schema';
import { findViolations, type Violation } from './find-violations';
export type RuleChanges = {
  market: string;
  versions: { version: number; readAt: string }[];
  from: number | null;
  to: number | null;
  changes: RuleChange[];
  /** Live and waiting listings of all accounts there. */
  live: number;
  violations: Violation[];
};

/** What changed between the two newest versions of a marketplace's rules, and which listings no longer fit. */
export async function ruleChanges(market: string): Promise<RuleChanges> {
  const db = database();
  const rows = await db
    .select()
    .from(marketRules)
    .where(eq(marketRules.market, market))
    .orderBy(desc(marketRules.version))
    .limit(20);
  const [now, before] = rows;
  const counted = rowsOf<{ live: number }>(
    await db.execute(
      sql`select count(*) as live from listing l join account a on a.id = l.account_id where a.market = ${market} and l.remote in ('live', 'review')`,
    ),
  );
  return {
    market,
    versions: rows.map(({ version, readAt }) => ({ version, readAt: readAt.toISOString() })),
    from: before?.version ?? null,
    to: now?.version ?? null,
    changes: now && before ? compareRules(before.doc, now.doc) : [],
    live: counted[0]?.live ?? 0,
    violations: (await findViolations(market)).violations,
  };
}
