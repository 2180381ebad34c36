import { and, asc, eq, sql } from 'drizzle-orm';
import type { z } from 'zod';
import { renewalOrder, type renewalRuleSchema, renewalVerdict } from '../../../core/sync';
import { database } from '../../../db/client';
import { item, listing } from '../../../db/schema';
import { factsOf } from './renewal-facts';

export async function dueListings(
  accountId: number,
  rule: z.infer<typeof renewalRuleSchema>,
  now: Date,
  most: number,
): Promise<number[]> {
  const rows = await database()
    .select({ listing, quantity: item.quantity })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        eq(listing.accountId, accountId),
        eq(listing.remote, 'live'),
        eq(listing.wanted, 'live'),
        eq(listing.problem, false),
        sql`${listing.liveSince} <= ${new Date(now.getTime() - rule.minDays * 86_400_000)}`,
      ),
    )
    .orderBy(asc(listing.liveSince))
    .limit(10_000);
  return rows
    .filter(({ listing: row, quantity }) => renewalVerdict(factsOf(row, quantity), rule, now).due)
    .sort((a, b) => renewalOrder(a.listing, b.listing))
    .slice(0, most)
    .map((row) => row.listing.id);
}
