import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { config } from '../../../config';
import { database } from '../../../db/client';
import { job } from '../../../db/schema';
import type { FrozenRequest } from '../../../db/schema/work';
import { requestTimeoutMs } from '../../../markets';

/** A creation that was sent and never answered, and the key that it carried. */
export type OpenCreate = { request: FrozenRequest; key: string | null };

/** The last one of a listing among jobs that ended without knowing; null when it was settled, or there was none. */
export async function endedOpen(listingId: number): Promise<OpenCreate | null> {
  const [earlier] = await database()
    .select({ request: job.request, key: job.idempotencyKey })
    .from(job)
    .where(
      and(
        eq(job.listingId, listingId),
        inArray(job.state, ['failed', 'skipped']),
        sql`json_value(${job.request}, '$.kind') = 'create'`,
        sql`${job.id} > coalesce((select max(d.id) from job d where d.listing_id = ${listingId} and d.state = 'done' and d.outcome = 'created'), 0)`,
      ),
    )
    .orderBy(desc(job.id))
    .limit(1);
  return earlier?.request ? { request: earlier.request, key: earlier.key } : null;
}

/**
 * How long, in milliseconds, it is not yet certain that a creation was not made although it is not shown: a request of it
 * may be under way, and what was made may be shown a while later. 0 when not being shown means not being there.
 */
export function uncertainFor({ openSince, firstSentAt }: FrozenRequest, now = Date.now()): number {
  const over = openSince ? Date.parse(openSince) : Date.parse(firstSentAt) + requestTimeoutMs;
  return Math.max(0, over + config.readsLagMs - now);
}
