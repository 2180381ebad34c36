import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Item } from '../core/item';
import { priorities } from '../core/sync';
import { type Tx, transaction } from '../db/client';
import { listing, run } from '../db/schema';
import type { LoadedAccount } from './account-context';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { rowsOf } from './find-items';
import { keepNumbers } from './former-numbers';
import { type PlannedKnot, type Publish, planPortions } from './plan-publish';
import { computeRow, derivedColumns, type ListingRow, storeDerived } from './refresh-listings';
import { selectionSchema, selectionWhere } from './selection';

const counted = (number: number, what: string) => `${number.toLocaleString('en')} ${what}${number === 1 ? '' : 's'}`;

export type Published = { runId: number; queued: number; notReady: number };

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
    await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId });
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
      { mend: 'Look at what is missing' },
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
    if (known.length) await keepNumbers(tx, sql`l.id in ${known}`, 'made-again');
    await tx
      .insert(listing)
      .values(fresh.map(({ itemId, accountId }) => ({ itemId, accountId, differences: {}, wanted: 'draft' as const })))
      .onDuplicateKeyUpdate({ set: { wanted: 'draft', remote: 'none' } });
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

async function wantLive(
  tx: Tx,
  knots: PlannedKnot[],
  items: Item[],
  rows: Map<string, ListingRow>,
  accounts: LoadedAccount[],
): Promise<number[]> {
  const known = knots.flatMap((knot) => rows.get(`${knot.itemId}/${knot.accountId}`)?.id ?? []);
  if (known.length) await keepNumbers(tx, sql`l.id in ${known}`, 'made-again');
  await tx
    .insert(listing)
    .values(knots.map(({ itemId, accountId }) => ({ itemId, accountId, differences: {}, wanted: 'live' as const })))
    .onDuplicateKeyUpdate({ set: { wanted: 'live', remote: sql`if(remote in ('live', 'review'), remote, 'none')` } });
  return derive(tx, knots, items, rows, accounts);
}

/** What follows for listings that were not there before: wanted price and quantity. */
async function derive(
  tx: Tx,
  knots: PlannedKnot[],
  items: Item[],
  before: Map<string, ListingRow>,
  accounts: LoadedAccount[],
): Promise<number[]> {
  const chosen = new Set(knots.map((knot) => `${knot.itemId}/${knot.accountId}`));
  const rows = await tx
    .select()
    .from(listing)
    .where(
      and(
        inArray(
          listing.itemId,
          items.map((one) => one.id),
        ),
        inArray(
          listing.accountId,
          accounts.map((one) => one.id),
        ),
      ),
    );
  const concerned = rows.filter((row) => chosen.has(`${row.itemId}/${row.accountId}`));
  const itemOf = new Map(items.map((one) => [one.id, one]));
  const derived = concerned.flatMap((row) => {
    const item = itemOf.get(row.itemId);
    const account = accounts.find((one) => one.id === row.accountId);
    if (!item || !account || before.get(`${row.itemId}/${row.accountId}`)?.wantedPrice != null) return [];
    return [{ id: row.id, set: derivedColumns(row, computeRow(item, row, account), account) }];
  });
  await storeDerived(tx, derived);
  return concerned.map((row) => row.id);
}

export const endListingsSchema = z
  .object({ selection: selectionSchema, accounts: z.array(z.number().int().positive()).min(1).max(50) })
  .strict();

/** Ends the live listings of these items on these accounts. */
export async function endListings(
  actor: Actor,
  input: z.infer<typeof endListingsSchema>,
): Promise<{ runId: number; queued: number }> {
  return transaction(async (tx) => {
    const where = sql`l.account_id in ${input.accounts} and l.item_id in (select i.id from item i where ${selectionWhere(input.selection)})`;
    const rows = rowsOf<{ id: number }>(
      await tx.execute(
        sql`select l.id from listing l where ${where} and (l.remote in ('live', 'review') or l.busy = 1) for update`,
      ),
    );
    if (rows.length === 0) throw new NettingError('invalid', 'None of these is live there');
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'end',
      title: counted(rows.length, 'listing'),
      detail: { accounts: input.accounts },
      itemCount: rows.length,
      byName: actor.name,
    });
    const ids = rows.map((row) => row.id);
    await tx.update(listing).set({ wanted: 'ended' }).where(inArray(listing.id, ids));
    await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.end, runId });
    return { runId, queued: ids.length };
  });
}
