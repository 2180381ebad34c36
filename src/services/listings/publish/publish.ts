import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { priorities } from '../../../core/sync';
import { type Tx, transaction } from '../../../db/client';
import { type ListingRow, listing, run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { enqueueJobs } from '../../records/listings/enqueue-jobs';
import { forgetRemoteIds } from '../../records/listings/forget-remote-ids';
import { counted } from './counted';
import { type PlannedKnot, planPortions } from './plan-portions';
import type { Publish } from './publish-schema';
import { derive, wantLive } from './want-live';

export const publishedSchema = z.object({
  runId: z.number(),
  queued: z.number(),
  notReady: z.number(),
});
export type Published = z.infer<typeof publishedSchema>;

/**
 * Makes listings wanted and queues what has to be sent; what is not ready is left as a draft. In one transaction:
 * once it is answered it will happen, whatever is switched off meanwhile.
 * @param within the transaction that this is a part of, where there is one
 */
export function publish(actor: Actor, input: Publish, within?: Tx): Promise<Published> {
  const work = (tx: Tx) => (input.as === 'draft' ? keepAsDrafts(tx, actor, input) : makeLive(tx, actor, input));
  return within ? work(within) : transaction(work);
}

async function startRun(tx: Tx, actor: Actor, input: Publish): Promise<number> {
  const [{ insertId }] = await tx.insert(run).values({
    kind: 'publish',
    title: 'Publish',
    detail: { accounts: input.accounts, as: input.as },
    byName: actor.name,
  });
  return insertId;
}

const titleOf = (items: Set<number>, accounts: Set<number>, asDraft: boolean) =>
  `${counted(items.size, 'item')} ${asDraft ? 'as drafts for' : 'to'} ${counted(accounts.size, 'account')}`;

/** Listings that are there and of which only some fields go, by these fields. */
function partly(
  { leave = [] }: Publish,
  knots: readonly PlannedKnot[],
  rows: ReadonlyMap<string, ListingRow>,
): { ids: number[]; fields: string[] }[] {
  const parts = new Map<string, { ids: number[]; fields: string[] }>();
  for (const { itemId, accountId, action, fields } of knots) {
    const id = rows.get(`${itemId}/${accountId}`)?.id;
    if (action !== 'update' || id === undefined || !leave.some((one) => one.account === accountId)) continue;
    const key = JSON.stringify(fields);
    const part = parts.get(key) ?? { ids: [], fields };
    part.ids.push(id);
    parts.set(key, part);
  }
  return [...parts.values()];
}

async function makeLive(tx: Tx, actor: Actor, input: Publish): Promise<Published> {
  const runId = await startRun(tx, actor, input);
  const items = new Set<number>();
  const places = new Set<number>();
  let queued = 0;
  let notReady = 0;
  await planPortions(tx, input, async (knots, some, rows, accounts) => {
    notReady += knots.filter((knot) => knot.action === 'not-ready').length;
    const go = knots.filter((knot) => knot.action === 'create' || knot.action === 'update');
    if (go.length === 0) return;
    const ids = await wantLive(tx, go, some, rows, accounts);
    const parts = partly(input, go, rows);
    const whole = ids.filter((id) => !parts.some((one) => one.ids.includes(id)));
    if (whole.length) await enqueueJobs(tx, { where: sql`l.id in ${whole}`, priority: priorities.create, runId });
    for (const part of parts)
      await enqueueJobs(tx, { where: sql`l.id in ${part.ids}`, priority: priorities.create, runId, only: part.fields });
    queued += ids.length;
    for (const knot of go) {
      items.add(knot.itemId);
      places.add(knot.accountId);
    }
  });
  if (queued === 0)
    throw new NettingError(
      'not-ready',
      notReady ? 'None of these listings is ready to be sent' : 'There is nothing to send',
      { fix: 'Look at what is missing' },
    );
  await tx
    .update(run)
    .set({ title: titleOf(items, places, false), itemCount: queued })
    .where(eq(run.id, runId));
  return { runId, queued, notReady };
}

/** Means items for accounts and sends nothing: what is not live there becomes a draft. */
async function keepAsDrafts(tx: Tx, actor: Actor, input: Publish): Promise<Published> {
  const runId = await startRun(tx, actor, input);
  const items = new Set<number>();
  const places = new Set<number>();
  let kept = 0;
  await planPortions(tx, input, async (knots, some, rows, accounts) => {
    const fresh = knots.filter((knot) => knot.action === 'create' || knot.action === 'not-ready');
    if (fresh.length === 0) return;
    const known = fresh.flatMap((knot) => rows.get(`${knot.itemId}/${knot.accountId}`)?.id ?? []);
    if (known.length) await forgetRemoteIds(tx, sql`l.id in ${known}`);
    await tx
      .insert(listing)
      .values(
        fresh.map(({ itemId, accountId }) => ({
          itemId,
          accountId,
          overrides: {},
          wanted: 'draft' as const,
          chosen: true,
        })),
      )
      .onDuplicateKeyUpdate({
        set: {
          // What may stand there is settled first.
          wanted: sql`if(remote = 'maybe', wanted, 'draft')`,
          chosen: true,
        },
      });
    await derive(tx, fresh, some, rows, accounts);
    kept += fresh.length;
    for (const knot of fresh) {
      items.add(knot.itemId);
      places.add(knot.accountId);
    }
  });
  if (kept === 0) throw new NettingError('invalid', 'All of these are live there already');
  await tx
    .update(run)
    .set({ title: titleOf(items, places, true), itemCount: kept })
    .where(eq(run.id, runId));
  return { runId, queued: 0, notReady: 0 };
}
