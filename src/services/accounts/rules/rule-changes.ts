import { desc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { compareRules } from '../../../core/rules';
import { ruleChangeSchema } from '../../../core/rules/compare';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { marketRules } from '../../../db/schema';
import { findViolations, violationSchema } from './find-violations';

export const ruleChangesSchema = z.object({
  market: z.string(),
  versions: z.array(
    z.object({
      version: z.number(),
      readAt: z.string(),
    }),
  ),
  from: z.number().nullable(),
  to: z.number().nullable(),
  changes: z.array(ruleChangeSchema),
  /** Live and waiting listings of all accounts there. */
  live: z.number(),
  violations: z.array(violationSchema),
});
export type RuleChanges = z.infer<typeof ruleChangesSchema>;

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
