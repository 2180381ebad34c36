import { and, desc, eq, inArray, or } from 'drizzle-orm';
import { z } from 'zod';
import { combinationWords } from '../../core/item';
import { database } from '../../db/client';
import { changeRecord, item, job, listing } from '../../db/schema';

export const historyEntrySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('change'),
    id: z.number(),
    at: z.string(),
    byName: z.string(),
    why: z.string(),
    field: z.string(),
    from: z.unknown(),
    to: z.unknown(),
    accountId: z.number().nullable(),
    /** The combination that it is of, in words; of one that is gone what it was called is not known any more. */
    combination: z.string().nullable(),
    /** The change of many that it was part of. */
    runId: z.number().nullable(),
  }),
  z.object({
    kind: z.literal('answer'),
    id: z.number(),
    at: z.string(),
    accountId: z.number(),
    outcome: z.enum(['created', 'changed', 'ended', 'renewed', 'nothing', 'failed', 'skipped']),
    fields: z.array(z.string()),
    message: z.string().nullable(),
    fix: z.string().nullable(),
  }),
]);
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

/** Who changed what and when, and what each marketplace answered: one timeline, newest first. */
export async function itemHistory(itemId: number, limit = 100): Promise<HistoryEntry[]> {
  const db = database();
  const [items, changes, answers] = await Promise.all([
    db.select({ variations: item.variations }).from(item).where(eq(item.id, itemId)),
    db
      .select({ change: changeRecord, accountId: listing.accountId })
      .from(changeRecord)
      .leftJoin(listing, eq(listing.id, changeRecord.listingId))
      .where(eq(changeRecord.itemId, itemId))
      .orderBy(desc(changeRecord.id))
      .limit(limit),
    db
      .select({ job })
      .from(job)
      .innerJoin(listing, eq(listing.id, job.listingId))
      .where(
        and(
          eq(listing.itemId, itemId),
          // What is tried on and does not get through is told like what failed.
          or(
            inArray(job.state, ['done', 'failed', 'skipped']),
            and(eq(job.state, 'waiting'), eq(listing.problem, true)),
          ),
        ),
      )
      .orderBy(desc(job.id))
      .limit(limit),
  ]);
  const rows = items[0]?.variations ?? [];
  const named = new Map(rows.map((row) => [row.key, combinationWords(row.values)]));
  const entries: HistoryEntry[] = [
    ...changes.map(
      ({ change: one, accountId }): HistoryEntry => ({
        kind: 'change',
        id: one.id,
        at: one.at.toISOString(),
        byName: one.byName,
        why: one.why,
        field: one.field,
        from: one.from,
        to: one.to,
        accountId,
        combination: one.combination === null ? null : (named.get(one.combination) ?? 'a combination that is gone'),
        runId: one.runId,
      }),
    ),
    ...answers.map(
      ({ job: one }): HistoryEntry => ({
        kind: 'answer',
        id: one.id,
        at: (one.finishedAt ?? one.createdAt).toISOString(),
        accountId: one.accountId,
        outcome: one.state === 'done' ? (one.outcome ?? 'nothing') : one.state === 'skipped' ? 'skipped' : 'failed',
        fields: one.request?.kind === 'update' ? one.request.fields : [],
        message: one.message,
        fix: one.fix,
      }),
    ),
  ];
  return entries.sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : b.id - a.id)).slice(0, limit);
}
