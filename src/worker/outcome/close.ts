import { eq, sql } from 'drizzle-orm';
import type { Tx } from '../../db/client';
import { item, job, listing } from '../../db/schema';
import type { JobRow } from '../claim';

const maxStory = 40;

/** Adds a line to a job's story: what was sent, what was answered. */
export const told = (row: JobRow, text: string): JobRow['story'] => [
  ...(row.story ?? []).slice(-maxStory),
  { at: new Date().toISOString(), text },
];

/** Holds the item of a job, then its listing, then the job: the order in which the house locks. Returns the job as it is. */
export async function hold(tx: Tx, row: Pick<JobRow, 'id' | 'listingId'>): Promise<JobRow | undefined> {
  const [there] = await tx.select({ itemId: listing.itemId }).from(listing).where(eq(listing.id, row.listingId));
  if (there) await tx.select({ id: item.id }).from(item).where(eq(item.id, there.itemId)).for('update');
  await tx.select({ id: listing.id }).from(listing).where(eq(listing.id, row.listingId)).for('update');
  const [now] = await tx.select().from(job).where(eq(job.id, row.id)).for('update');
  return now;
}

/** Whether it is still what this worker took: another claim, also one of its own, has a number of its own. */
export const isOwn = (now: JobRow | undefined, row: JobRow, worker: string): now is JobRow =>
  now !== undefined && now.state === 'running' && now.leaseOwner === worker && now.lease === row.lease;

/**
 * Ends a job in the transaction that stores what came of it. When changes joined while it ran, it goes back into the
 * line instead, with nothing kept of the request that was answered. A worker that lost its lease changes nothing.
 */
export async function close(
  tx: Tx,
  row: JobRow,
  worker: string,
  set: Partial<JobRow>,
  again = false,
): Promise<boolean> {
  const now = await hold(tx, row);
  if (!isOwn(now, row, worker)) return false;
  const joined = again || now.generation !== row.generation;
  if (joined) {
    // A create that nobody answered stays with the job: it has to be settled before anything else is sent.
    const settled = set.request?.kind === 'create' ? { request: set.request } : { request: null, idempotencyKey: null };
    await tx
      .update(job)
      .set({
        state: 'waiting',
        attempts: 0,
        // What joined meanwhile is a change; the listing was made anew already.
        ...(row.kind === 'renew' && set.outcome === 'renewed'
          ? { kind: 'sync' as const, outcome: 'renewed' as const }
          : {}),
        leaseOwner: null,
        ...settled,
        dueAt: sql`utc_timestamp(3)`,
        story: set.story,
      })
      .where(eq(job.id, row.id));
    return true;
  }
  await tx
    .update(job)
    // Made anew in an earlier round: that is what the job will be remembered for.
    .set({
      ...set,
      ...(now.outcome === 'renewed' && set.state === 'done' ? { outcome: 'renewed' as const } : {}),
      liveListing: null,
      leaseOwner: null,
      finishedAt: new Date(),
    })
    .where(eq(job.id, row.id));
  await tx
    .update(listing)
    .set({ busy: false, problem: set.state === 'failed' })
    .where(eq(listing.id, row.listingId));
  return true;
}
