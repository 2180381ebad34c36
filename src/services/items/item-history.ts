import { and, desc, eq, inArray, lt, or } from 'drizzle-orm';
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

/** How far back a page has come in changes and in answers: what is before both comes next. */
export const historyQuerySchema = z
  .object({ beforeChange: z.coerce.number().int().optional(), beforeAnswer: z.coerce.number().int().optional() })
  .strict();
export type HistoryPlace = z.infer<typeof historyQuerySchema>;

export const itemHistorySchema = z.object({
  history: z.array(historyEntrySchema),
  /** Where the next page begins; null at the beginning of the item. */
  next: z.object({ beforeChange: z.number(), beforeAnswer: z.number() }).nullable(),
});
export type ItemHistory = z.infer<typeof itemHistorySchema>;

const newest = Number.MAX_SAFE_INTEGER;

/** Who changed what and when, and what each marketplace answered: one timeline, newest first, a page at a time. */
export async function itemHistory(itemId: number, from: HistoryPlace = {}, limit = 100): Promise<ItemHistory> {
  const { beforeChange = newest, beforeAnswer = newest } = from;
  const db = database();
  const [items, changes, answers] = await Promise.all([
    db.select({ variations: item.variations }).from(item).where(eq(item.id, itemId)),
    db
      .select({ change: changeRecord, accountId: listing.accountId })
      .from(changeRecord)
      .leftJoin(listing, eq(listing.id, changeRecord.listingId))
      .where(and(eq(changeRecord.itemId, itemId), lt(changeRecord.id, beforeChange)))
      .orderBy(desc(changeRecord.id))
      .limit(limit + 1),
    db
      .select({ job })
      .from(job)
      .innerJoin(listing, eq(listing.id, job.listingId))
      .where(
        and(
          eq(listing.itemId, itemId),
          lt(job.id, beforeAnswer),
          // What is tried on and does not get through is told like what failed.
          or(
            inArray(job.state, ['done', 'failed', 'skipped']),
            and(eq(job.state, 'waiting'), eq(listing.problem, true)),
          ),
        ),
      )
      .orderBy(desc(job.id))
      .limit(limit + 1),
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
  const sorted = entries.sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : b.id - a.id));
  const history = sorted.slice(0, limit);
  const least = (kind: HistoryEntry['kind'], before: number) =>
    history.reduce((low, one) => (one.kind === kind ? Math.min(low, one.id) : low), before);
  return {
    history,
    next:
      sorted.length > limit
        ? { beforeChange: least('change', beforeChange), beforeAnswer: least('answer', beforeAnswer) }
        : null,
  };
}
