import { and, desc, eq, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { account, item, job, listing } from '../../db/schema';

export const jobStates = ['waiting', 'held', 'running', 'done', 'failed', 'skipped'] as const;

export const findJobsSchema = z.object({
  state: z.enum(jobStates).optional(),
  run: z.coerce.number().int().optional(),
  item: z.coerce.number().int().optional(),
  account: z.coerce.number().int().optional(),
  before: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export const outboxJobSchema = z.object({
  id: z.number(),
  listingId: z.number(),
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  accountId: z.number(),
  accountName: z.string(),
  runId: z.number().nullable(),
  state: z.enum(jobStates),
  outcome: z.string().nullable(),
  attempts: z.number(),
  dueAt: z.string(),
  errorCode: z.string().nullable(),
  message: z.string().nullable(),
  fix: z.string().nullable(),
  field: z.string().nullable(),
  /** Taken at first, and refused by their review since: why. */
  refusal: z.string().nullable(),
  url: z.string().nullable(),
  remoteId: z.string().nullable(),
  story: z.array(
    z.object({
      at: z.string(),
      text: z.string(),
    }),
  ),
  createdAt: z.string(),
  finishedAt: z.string().nullable(),
});
export type OutboxJob = z.infer<typeof outboxJobSchema>;

/** Jobs, newest first: what is planned, under way, done and failed, with the reason in plain words. */
export async function findJobs(
  input: z.infer<typeof findJobsSchema>,
): Promise<{ jobs: OutboxJob[]; next: number | null }> {
  const rows = await database()
    .select({
      job,
      itemId: listing.itemId,
      url: listing.remoteUrl,
      remoteId: listing.remoteId,
      refusal: sql<
        string | null
      >`if(${listing.remote} = 'refused' and ${job.outcome} in ('created', 'renewed') and ${job.id} = (select max(j.id) from job j where j.listing_id = ${listing.id}), ${listing.refusal}, null)`,
      refusalField: listing.refusalField,
      sku: item.sku,
      title: item.title,
      photo: item.mainPhoto,
      accountName: account.name,
    })
    .from(job)
    .innerJoin(listing, eq(listing.id, job.listingId))
    .innerJoin(item, eq(item.id, listing.itemId))
    .innerJoin(account, eq(account.id, job.accountId))
    .where(
      and(
        input.state ? eq(job.state, input.state) : undefined,
        input.run ? eq(job.runId, input.run) : undefined,
        input.item ? eq(listing.itemId, input.item) : undefined,
        input.account ? eq(job.accountId, input.account) : undefined,
        input.before ? lt(job.id, input.before) : undefined,
      ),
    )
    .orderBy(desc(job.id))
    .limit(input.limit + 1);
  const jobs = rows.slice(0, input.limit).map(
    ({ job: one, refusalField, ...rest }): OutboxJob => ({
      id: one.id,
      listingId: one.listingId,
      accountId: one.accountId,
      runId: one.runId,
      state: one.state,
      outcome: one.outcome,
      attempts: one.attempts,
      dueAt: one.dueAt.toISOString(),
      errorCode: one.errorCode,
      message: one.message,
      fix: one.fix,
      field: rest.refusal === null ? one.field : refusalField,
      story: one.story ?? [],
      createdAt: one.createdAt.toISOString(),
      finishedAt: one.finishedAt?.toISOString() ?? null,
      ...rest,
    }),
  );
  return { jobs, next: rows.length > input.limit ? (jobs.at(-1)?.id ?? null) : null };
}
