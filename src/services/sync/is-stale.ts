import { and, desc, eq, gt } from 'drizzle-orm';
import { config } from '../../config';
import { sameJson } from '../../core/json';
import { driftedFields, standsThere } from '../../core/sync';
import type { Executor } from '../../db/client';
import { job, type ListingRow } from '../../db/schema';
import type { RemoteListing } from '../../markets';

/**
 * Whether what they show may be what stood there before our last sends: they may take a while to show what they have
 * done. It is, when it came soon after a send and has a field of it just as it was before, or shows as live what we ended.
 * @returns when a look tells the truth for sure; null when this one does
 */
export async function isStale(db: Executor, row: ListingRow, shown: RemoteListing, readAt: Date): Promise<Date | null> {
  const sentAt = row.sentAt?.getTime() ?? 0;
  const sureAt = sentAt + config.readsLagMs;
  if (readAt.getTime() >= sureAt || !standsThere(shown.state)) return null;
  if (row.remote === 'ended' && row.wanted === 'ended') return new Date(sureAt);
  const differing = driftedFields(row.base ?? {}, shown.content);
  if (differing.length === 0) return null;
  const recent = await db
    .select({ request: job.request })
    .from(job)
    .where(
      and(
        eq(job.listingId, row.id),
        eq(job.state, 'done'),
        gt(job.finishedAt, new Date(readAt.getTime() - 2 * config.readsLagMs)),
      ),
    )
    .orderBy(desc(job.id))
    .limit(10);
  const wasBefore = (field: string) =>
    recent.some(({ request }) => {
      if (!request?.fields.includes(field)) return false;
      const before = request.known?.base[field];
      return before === undefined || sameJson(before, shown.content[field]);
    });
  return differing.some(wasBefore) ? new Date(sureAt) : null;
}
