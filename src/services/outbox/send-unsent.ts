import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { priorities } from '../../core/sync';
import { transaction } from '../../db/client';
import { run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { enqueueJobs } from '../records/listings/enqueue-jobs';

const fields = z
  .array(z.string().max(80))
  .min(1)
  .max(200)
  .optional()
  .describe('Only these; all that differ when left out');

export const sendUnsentSchema = z.union([
  z
    .object({
      listings: z
        .array(z.object({ id: z.number().int().positive(), fields }).strict())
        .min(1)
        .max(2_000),
    })
    .strict(),
  z.object({ all: z.literal(true), account: z.number().int().optional(), fields }).strict(),
]);

type Part = { where: SQL; only: string[] | undefined };

function partsOf(input: z.infer<typeof sendUnsentSchema>): Part[] {
  if ('all' in input)
    return [{ where: input.account === undefined ? sql`1` : sql`l.account_id = ${input.account}`, only: input.fields }];
  const byFields = new Map<string, Part & { ids: number[] }>();
  for (const one of input.listings) {
    const key = JSON.stringify(one.fields ?? null);
    const part = byFields.get(key) ?? { where: sql`0`, only: one.fields, ids: [] };
    part.ids.push(one.id);
    byFields.set(key, part);
  }
  return [...byFields.values()].map(({ ids, only }) => ({ where: sql`l.id in ${ids}`, only }));
}

/** Sends what differs from what is live: of chosen listings, or of all; on wish only some of their fields. */
export async function sendUnsent(actor: Actor, input: z.infer<typeof sendUnsentSchema>): Promise<{ queued: number }> {
  return transaction(async (tx) => {
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'publish', title: 'Changes that were not sent', detail: {}, itemCount: 0, byName: actor.name });
    let queued = 0;
    for (const { where, only } of partsOf(input)) {
      // What would not be taken as it is goes only where somebody has chosen it.
      const ready = 'all' in input ? sql` and l.blocking = 0` : sql``;
      const term = sql`${where} and l.remote = 'live' and l.dirty = 1${ready}`;
      const [[{ count } = { count: 0 }]] = (await tx.execute(
        sql`select count(*) as count from listing l where ${term}`,
      )) as unknown as [{ count: number }[]]; // one row
      if (count === 0) continue;
      await enqueueJobs(tx, {
        where: term,
        priority: sql`case when l.wanted_quantity < 1 then ${priorities.end} when coalesce(l.wanted_quantity <> l.sent_quantity, 1) then ${priorities.quantity} when coalesce(l.wanted_price <> l.sent_price, 0) then ${priorities.price} else ${priorities.content} end`,
        runId,
        only,
      });
      queued += Number(count);
    }
    if (queued === 0) throw new NettingError('invalid', 'Nothing of this waits to be sent');
    await tx.execute(sql`update run set item_count = ${queued} where id = ${runId}`);
    return { queued };
  });
}
