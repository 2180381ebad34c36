import { and, asc, desc, eq, inArray, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { renewalVerdict } from '../../../core/sync';
import { database } from '../../../db/client';
import { item, job, listing } from '../../../db/schema';
import { factsOf } from './renewal-facts';

export const findRenewalsSchema = z.object({
  account: z.coerce.number().int().optional(),
  order: z.enum(['due', 'longest', 'newest']).default('due'),
  minDays: z.coerce.number().int().min(0).max(3_650).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
  from: z.coerce.number().int().min(0).max(1_000_000).default(0).describe('How many come before this page'),
});

export const renewalViewSchema = z.object({
  listingId: z.number(),
  itemId: z.number(),
  accountId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  liveSince: z.string().nullable(),
  renewsAt: z.string().nullable(),
  days: z.number().nullable(),
  daysToTheirs: z.number().nullable(),
  timesMade: z.number(),
  blocks: z.string().nullable(),
  /** What became of its renewal, while there is one: waiting, running, failed and why. */
  job: z
    .object({
      state: z.string(),
      message: z.string().nullable(),
    })
    .nullable(),
});
export type RenewalView = z.infer<typeof renewalViewSchema>;

export const renewalsSchema = z.object({
  listings: z.array(renewalViewSchema),
  /** Where the next page begins; null when this is the last. */
  next: z.number().nullable(),
  /** Ended to be made anew, and not made anew yet: they stay in sight until that is settled. */
  unsettled: z.array(renewalViewSchema),
});
type Renewals = z.infer<typeof renewalsSchema>;

/** Live listings with their age: the longest unrenewed, the newest, or those that the marketplace would renew soonest. */
export async function findRenewals(input: z.infer<typeof findRenewalsSchema>): Promise<Renewals> {
  const now = new Date();
  const rows = await database()
    .select({ listing, sku: item.sku, title: item.title, photo: item.mainPhoto, quantity: item.quantity })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        inArray(listing.remote, ['live', 'review']),
        eq(listing.wanted, 'live'),
        input.account ? eq(listing.accountId, input.account) : undefined,
        input.minDays > 0
          ? sql`${listing.liveSince} <= ${new Date(now.getTime() - input.minDays * 86_400_000)}`
          : undefined,
      ),
    )
    .orderBy(
      ...(input.order === 'newest'
        ? [desc(listing.liveSince)]
        : input.order === 'longest'
          ? [asc(listing.liveSince)]
          : [sql`${listing.renewsAt} is null`, asc(listing.renewsAt), asc(listing.liveSince)]),
    )
    .limit(input.limit + 1)
    .offset(input.from);
  const lost = input.from === 0 ? await unsettledRows(input.account) : [];
  const page = rows.slice(0, input.limit);
  const jobs = await latestRenewals([...page, ...lost].map((row) => row.listing.id));
  const view = (some: typeof rows): RenewalView[] =>
    some.map(({ listing: row, quantity, ...thing }) => {
      const { blocks, days, daysToTheirs } = renewalVerdict(
        factsOf(row, quantity),
        { minDays: 0, withinDays: null },
        now,
      );
      return {
        listingId: row.id,
        itemId: row.itemId,
        accountId: row.accountId,
        ...thing,
        liveSince: row.liveSince?.toISOString() ?? null,
        renewsAt: row.renewsAt?.toISOString() ?? null,
        days,
        daysToTheirs,
        timesMade: row.timesMade,
        blocks,
        job: jobs.get(row.id) ?? null,
      };
    });
  return {
    listings: view(page),
    next: rows.length > input.limit ? input.from + input.limit : null,
    unsettled: view(lost),
  };
}

/** What a renewal ended and did not make anew: its job waits, runs or failed, and nothing of it is live. */
const unsettledRows = (accountId: number | undefined) =>
  database()
    .select({ listing, sku: item.sku, title: item.title, photo: item.mainPhoto, quantity: item.quantity })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(job, sql`${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id})`)
    .where(
      and(
        inArray(listing.state, ['attention', 'waiting', 'ended']),
        sql`${listing.remote} not in ('live', 'review')`,
        eq(listing.wanted, 'live'),
        eq(job.kind, 'renew'),
        inArray(job.state, ['waiting', 'held', 'running', 'failed']),
        accountId ? eq(listing.accountId, accountId) : undefined,
      ),
    )
    .limit(500);

async function latestRenewals(ids: number[]): Promise<Map<number, { state: string; message: string | null }>> {
  if (ids.length === 0) return new Map();
  const rows = await database()
    .select({ listingId: job.listingId, state: job.state, message: job.message })
    .from(job)
    .where(and(inArray(job.listingId, ids), or(eq(job.kind, 'renew'), eq(job.outcome, 'renewed'))))
    .orderBy(asc(job.id));
  return new Map(rows.map((row) => [row.listingId, { state: row.state, message: row.message }]));
}
