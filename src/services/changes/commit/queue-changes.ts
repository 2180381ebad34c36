import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { priorities } from '../../../core/sync';
import type { Executor } from '../../../db/client';
import { isThere } from '../../records/items/is-there';
import { enqueueJobs, stockFields } from '../../records/listings/enqueue-jobs';

/**
 * What goes out by itself: everything that differs from what was sent, every stock that moved, or only stock that falls
 * or ends, which always goes.
 */
export type Send = 'all' | 'stock' | 'falls';

/** A part of what is to be sent: only to these accounts, only these fields of their listings. */
export const sendPartSchema = z
  .object({
    accounts: z.array(z.number().int()).min(1).max(200).optional(),
    fields: z.array(z.string().max(80)).min(1).max(200).optional(),
  })
  .strict();
export type SendPart = z.infer<typeof sendPartSchema>;

const units = sql`coalesce(l.wanted_quantity <> l.sent_quantity, 1)`;
const fewer = sql`coalesce(l.wanted_quantity < l.sent_quantity, 1)`;
/** Combinations have units of their own, which the sum does not tell. */
const varied = sql`(l.dirty = 1 and (select i.axes <> '[]' from item i where i.id = l.item_id))`;
/** What is being sent right now may carry the old value: the change joins it. */
const differs = {
  all: sql`(l.busy = 1 or (${isThere} and (l.dirty = 1 or ${units})))`,
  stock: sql`(l.busy = 1 or (${isThere} and (${units} or ${varied})))`,
  falls: sql`(l.busy = 1 or (${isThere} and (${fewer} or ${varied})))`,
};
const ended = sql`l.wanted_quantity < 1 and ${units}`;
/** What waits to be made is no stock that anybody can buy: it keeps its place in the line. */
const ofStock = sql`case when not ${isThere} then ${priorities.create} when ${ended} then ${priorities.end} else ${priorities.quantity} end`;
/** Ends first, then stock, prices, words. */
const ofAnything = (moved: readonly number[]) => {
  // Where combinations moved the sum may be what it was, and yet stock is what has to be told.
  const stirred = moved.length ? sql`or (l.item_id in ${moved} and ${varied})` : sql``;
  return sql`case when not ${isThere} then ${priorities.create} when ${ended} then ${priorities.end} when (${units}) ${stirred} then ${priorities.quantity} when coalesce(l.wanted_price <> l.sent_price, 0) then ${priorities.price} else ${priorities.content} end`;
};

/** Items that were changed at all, whose stock moved, and whose stock fell. */
export type Stirred = { all: number[]; moved: number[]; fallen: number[] };

/**
 * Queues what must go out of these items, in the caller's transaction; their listings are computed before.
 * @returns how many listings are told
 */
export async function queueChanges(
  db: Executor,
  { all, moved, fallen }: Stirred,
  send: Send,
  runId: number | null,
  part: SendPart = {},
): Promise<number> {
  const ids = { all, stock: moved, falls: fallen }[send];
  if (ids.length === 0) return 0;
  if (send !== 'all')
    return enqueueJobs(db, {
      where: sql`l.item_id in ${ids} and ${differs[send]}`,
      priority: ofStock,
      runId,
      only: stockFields,
    });
  const { accounts, fields } = part;
  const there = accounts ? sql` and l.account_id in ${accounts}` : sql``;
  const told = await enqueueJobs(db, {
    where: sql`l.item_id in ${ids} and ${differs.all}${there}`,
    priority: ofAnything(moved),
    runId,
    only: fields,
  });
  // Stock that falls goes everywhere, whatever else is held back.
  return accounts || fields ? told + (await queueChanges(db, { all, moved, fallen }, 'falls', runId)) : told;
}

/** The same of what the caller has marked as busy already, where every listing that differs is told. */
export const queueMarked = (db: Executor, itemIds: readonly number[], runId: number | null): Promise<number> =>
  enqueueJobs(db, {
    where: sql`l.item_id in ${itemIds} and l.busy = 1`,
    priority: ofAnything([]),
    runId,
    marked: true,
  });
