import { and, eq, inArray, sql } from 'drizzle-orm';
import type { KeptSales } from '../../core/kit';
import { database, type Executor } from '../../db/client';
import { entrySales } from '../../db/schema';
import type { Connector, Session } from '../../markets';

/** What was heard of an entry holds for a day. */
export const freshSince = (): Date => new Date(Date.now() - 86_400_000);

/** What was told of these entries, as it was last heard; `since` leaves out what is older. */
export async function knownSales(
  db: Executor,
  market: string,
  entries: readonly string[],
  since: Date | null,
): Promise<Map<string, { told: KeptSales; readAt: Date }>> {
  const known = new Map<string, { told: KeptSales; readAt: Date }>();
  for (let at = 0; at < entries.length; at += 500) {
    const some = entries.slice(at, at + 500);
    const rows = await db
      .select()
      .from(entrySales)
      .where(and(eq(entrySales.market, market), inArray(entrySales.entry, some)));
    for (const { entry, told, readAt } of rows) if (!since || readAt >= since) known.set(entry, { told, readAt });
  }
  return known;
}

/** Asks what an entry sold for and what is on offer, and keeps it. */
export async function hearEntry(
  { connector, session }: { connector: Connector; session: Session },
  entry: string,
): Promise<void> {
  const [sales, offers] = await Promise.all([
    connector.pastSales?.(session, entry) ?? [],
    connector.presentOffers?.(session, entry) ?? [],
  ]);
  const readAt = new Date();
  const told: KeptSales = { sales, offers };
  await database()
    .insert(entrySales)
    .values({ market: connector.market, entry, told, readAt })
    .onDuplicateKeyUpdate({ set: { told: sql`values(${entrySales.told})`, readAt } });
}
