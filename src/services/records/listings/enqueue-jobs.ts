import { type SQL, sql } from 'drizzle-orm';
import type { JobPriority } from '../../../core/sync';
import type { Executor } from '../../../db/client';

/** What tells stock: it goes by itself, and takes nothing along that was only saved. */
export const stockFields = ['quantity', 'variations'] as const;

/**
 * Queues a job for every listing that the condition names (over `l`, the listing table), in the caller's transaction.
 * A listing with a live job gets none besides: the change joins it, at the more urgent place.
 * `from` names further tables to join, such as a temporary one.
 */
export async function enqueueJobs(
  db: Executor,
  options: {
    where: SQL;
    from?: SQL;
    /** One for all, or an expression over `l`. */
    priority: JobPriority | SQL;
    runId: number | null;
    kind?: 'sync' | 'renew';
    /** Only these fields of the listing go, or an expression over `l` that says them; all that differ when left out. */
    only?: readonly string[] | SQL;
    /** The caller has marked the listings busy in an update of its own. */
    marked?: boolean;
  },
): Promise<number> {
  const { where, from = sql``, priority, runId, kind = 'sync', only, marked = false } = options;
  const fields = only === undefined ? null : 'length' in only ? JSON.stringify(only) : only;
  const [result] = await db.execute(sql`
    insert into job (listing_id, live_listing, account_id, run_id, priority, kind, only_fields, due_at, created_at)
    select l.id, l.id, l.account_id, ${runId}, ${priority}, ${kind}, ${fields}, utc_timestamp(3), utc_timestamp(3)
    from listing l ${from} where ${where}
    on duplicate key update
      job.run_id = coalesce(values(run_id), job.run_id),
      job.priority = least(job.priority, values(priority)),
      job.due_at = least(job.due_at, values(due_at)),
      job.kind = if(values(kind) = 'renew', 'renew', job.kind),
      job.only_fields = if(job.only_fields is null or values(only_fields) is null, null, if(json_contains(job.only_fields, values(only_fields)), job.only_fields, json_merge_preserve(job.only_fields, values(only_fields)))),
      job.state = if(job.state = 'held', 'waiting', job.state),
      job.generation = job.generation + 1`);
  if (!marked) await db.execute(sql`update listing l ${from} set l.busy = 1, l.problem = 0 where ${where}`);
  return (result as unknown as { affectedRows: number }).affectedRows; // mysql2's header of a change
}
