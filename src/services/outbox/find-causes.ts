import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { account, item, job, listing } from '../../db/schema';

export const causeSchema = z.object({
  accountId: z.number(),
  accountName: z.string(),
  message: z.string(),
  fix: z.string().nullable(),
  errorCode: z.string().nullable(),
  field: z.string().nullable(),
  count: z.number(),
  items: z.array(
    z.object({
      id: z.number(),
      sku: z.string(),
      title: z.string(),
    }),
  ),
});
export type Cause = z.infer<typeof causeSchema>;

/** What needs a person, grouped by cause: each with the one mend for all of them. */
export async function findCauses(): Promise<Cause[]> {
  const rows = await database()
    .select({
      accountId: job.accountId,
      accountName: account.name,
      message: job.message,
      fix: job.fix,
      errorCode: job.errorCode,
      field: job.field,
      itemId: item.id,
      sku: item.sku,
      title: item.title,
    })
    .from(listing)
    .innerJoin(job, sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`)
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(eq(listing.state, 'attention'))
    .limit(5_000);
  const causes = new Map<string, Cause>();
  for (const { itemId, sku, title, ...row } of rows) {
    const key = `${row.accountId}/${row.message}`;
    const cause = causes.get(key) ?? { ...row, message: row.message ?? 'It failed', count: 0, items: [] };
    cause.count++;
    if (cause.items.length < 20) cause.items.push({ id: itemId, sku, title });
    causes.set(key, cause);
  }
  return [...causes.values()].sort((a, b) => b.count - a.count);
}
