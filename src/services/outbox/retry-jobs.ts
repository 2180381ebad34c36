import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { priorities } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import type { Actor } from '../access/actor';
import { enqueueJobs } from '../records/listings/enqueue-jobs';
import { forgetRemoteIds } from '../records/listings/forget-remote-ids';

export const retryJobsSchema = z.union([
  z.object({ jobs: z.array(z.number().int()).min(1).max(2_000) }).strict(),
  z
    .object({ account: z.number().int(), message: z.string() })
    .strict()
    .describe('All that failed on this account with this very reason'),
]);

/** So many listings are queued in one transaction: nobody waits for more of them. */
const atOnce = 300;

/** Queues failed jobs anew, by number or all of one cause; those that are tried on by themselves are tried at once. */
export async function retryJobs(_actor: Actor, input: z.infer<typeof retryJobsSchema>): Promise<{ queued: number }> {
  const which =
    'jobs' in input
      ? sql`j.id in ${input.jobs}`
      : sql`l.account_id = ${input.account} and ${input.message} in (if(l.remote = 'refused', l.refusal, j.message), j.message)`;
  const ids = rowsOf<{ listingId: number }>(
    await database().execute(
      sql`select distinct j.listing_id as listingId from job j join listing l on l.id = j.listing_id where ${which} and l.problem = 1 and (j.state = 'failed' or (j.state = 'waiting' and j.live_listing = l.id) or l.remote = 'refused') order by j.listing_id`,
    ),
  ).map((row) => row.listingId);
  if (ids.length === 0) throw new NettingError('invalid', 'Nothing of this has failed');
  let queued = 0;
  for (let at = 0; at < ids.length; at += atOnce) queued += await queueAnew(ids.slice(at, at + atOnce));
  return { queued };
}

const queueAnew = (ids: number[]): Promise<number> =>
  transaction(async (tx) => {
    // What somebody else mended or queued since it was found is left alone.
    const failed = sql`l.id in ${ids} and l.problem = 1`;
    // What their review refused stands nowhere any more: it is made anew, under a number of its own.
    const refused = sql`${failed} and l.remote = 'refused'`;
    await tx.execute(sql`update listing l set l.wanted = 'live' where ${refused}`);
    await forgetRemoteIds(tx, refused);
    const queued = await enqueueJobs(tx, {
      where: failed,
      // What was urgent is so again.
      priority: sql`coalesce((select j.priority from job j where j.listing_id = l.id order by j.id desc limit 1), ${priorities.create})`,
      runId: null,
      only: sql`(select j.only_fields from job j where j.listing_id = l.id order by j.id desc limit 1)`,
    });
    return Math.min(queued, ids.length);
  });
