import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { priorities, renewalOrder } from '../../../core/sync';
import { transaction } from '../../../db/client';
import { run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';
import { chosenRows, type renewSchema } from './renewal-facts';

/** Ends these listings and makes them anew, the most urgent first. What is blocked is tried as well, so that the marketplace's own word is heard. */
export async function renew(
  actor: Actor,
  input: z.infer<typeof renewSchema>,
  title?: string,
): Promise<{ runId: number; queued: number }> {
  return transaction(async (tx) => {
    const rows = (await chosenRows(tx, input.listings))
      .filter(({ listing: row }) => row.remote === 'live' && row.wanted === 'live')
      .sort((a, b) => renewalOrder(a.listing, b.listing));
    if (rows.length === 0) throw new NettingError('invalid', 'None of these is live, so nothing can be renewed');
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'renew',
      title: title ?? `${rows.length.toLocaleString('en')} ${rows.length === 1 ? 'listing' : 'listings'}`,
      detail: {},
      itemCount: rows.length,
      byName: actor.name,
    });
    // One by one, since the order in which they are queued is the order in which they are done.
    for (const { listing: row } of rows)
      await enqueueJobs(tx, { where: sql`l.id = ${row.id}`, priority: priorities.renew, runId, kind: 'renew' });
    return { runId, queued: rows.length };
  });
}
