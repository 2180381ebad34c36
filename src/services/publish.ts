import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Issue } from '../core/listing';
import { planListing, priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { listing, run } from '../db/schema';
import { type LoadedAccount, loadAccounts } from './account-context';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { rowsOf } from './find-items';
import { loadItems } from './load-items';
import { netOfContent } from './net-input';
import { computeRow, derivedColumns, storeDerived } from './refresh-listings';
import { selectionSchema, selectionWhere } from './selection';

export const publishSchema = z
  .object({
    selection: selectionSchema,
    accounts: z.array(z.number().int().positive()).min(1, 'Choose at least one marketplace').max(50),
    /** Knots (item × account) that are to be left out. */
    without: z
      .array(z.object({ itemId: z.number().int(), accountId: z.number().int() }))
      .max(10_000)
      .default([]),
  })
  .strict();
export type Publish = z.infer<typeof publishSchema>;

export type PlannedKnot = {
  itemId: number;
  accountId: number;
  action: 'create' | 'update' | 'end' | 'nothing' | 'not-ready';
  why: string | null;
  fields: string[];
  issues: Issue[];
  price: number | null;
  net: number | null;
};
export type PublishPlan = {
  items: { id: number; sku: string; title: string; photo: string | null }[];
  knots: PlannedKnot[];
  accounts: {
    accountId: number;
    name: string;
    create: number;
    update: number;
    nothing: number;
    notReady: number;
    listingFees: number;
    currency: string;
    seconds: number;
  }[];
  causes: { message: string; accountId: number; field: string; count: number; mend: Issue['mend'] }[];
};

const mostItems = 2_000;
const counted = (number: number, what: string) => `${number.toLocaleString('en')} ${what}${number === 1 ? '' : 's'}`;

async function selectedIds(input: Publish): Promise<number[]> {
  const rows = rowsOf<{ id: number }>(
    await database().execute(
      sql`select i.id from item i where ${selectionWhere(input.selection)} order by i.id limit ${mostItems + 1}`,
    ),
  );
  if (rows.length > mostItems)
    throw new NettingError('invalid', `Publish at most ${mostItems.toLocaleString('en')} items in one go`, {
      field: 'selection',
    });
  return rows.map((row) => row.id);
}

/** What would happen per item and account, what it costs, what is not ready and why. Nothing is changed. */
export async function planPublish(input: Publish): Promise<PublishPlan> {
  const db = database();
  const ids = await selectedIds(input);
  const accounts = await loadAccounts(db, input.accounts);
  const items = await loadItems(db, ids);
  const rows = ids.length
    ? await db
        .select()
        .from(listing)
        .where(and(inArray(listing.itemId, ids), inArray(listing.accountId, input.accounts)))
    : [];
  const live = rowsOf<{ accountId: number; live: number }>(
    await db.execute(
      sql`select account_id as accountId, count(*) as live from listing where state in ('live', 'changed', 'conflict') group by account_id`,
    ),
  );
  const rowOf = new Map(rows.map((row) => [`${row.itemId}/${row.accountId}`, row]));
  const without = new Set(input.without.map((knot) => `${knot.itemId}/${knot.accountId}`));
  const knots: PlannedKnot[] = [];
  const summary = accounts.map((account) => {
    const { rules } = account.compiled;
    const line = {
      accountId: account.id,
      name: account.name,
      create: 0,
      update: 0,
      nothing: 0,
      notReady: 0,
      listingFees: 0,
      currency: rules.currency,
      seconds: 0,
    };
    let liveCount = live.find((one) => one.accountId === account.id)?.live ?? 0;
    for (const item of items) {
      const key = `${item.id}/${account.id}`;
      if (without.has(key)) continue;
      const row = rowOf.get(key);
      if (row?.wanted === 'none' && row.remote !== 'live' && row.remote !== 'review') {
        line.nothing++;
        knots.push({
          itemId: item.id,
          accountId: account.id,
          action: 'nothing',
          why: 'It is left out there on its sheet',
          fields: [],
          issues: [],
          price: null,
          net: null,
        });
        continue;
      }
      const computed = computeRow(item, row, account);
      const action = planListing(
        { wanted: 'live', remote: row?.remote === 'live' || row?.remote === 'review' ? row.remote : 'none' },
        computed,
        row?.sent ?? null,
      );
      const net = netOfContent(account, computed.content, item.cost, liveCount);
      if (action.kind === 'create') {
        line.create++;
        line.listingFees += net?.fees.listing ?? 0;
        liveCount++;
      } else if (action.kind === 'update') line.update++;
      else if (action.kind === 'not-ready') line.notReady++;
      else line.nothing++;
      knots.push({
        itemId: item.id,
        accountId: account.id,
        action: action.kind,
        why: action.kind === 'nothing' ? action.why : null,
        fields: action.kind === 'update' ? action.changes.map((change) => change.field) : [],
        issues: action.kind === 'not-ready' ? action.issues : [],
        price: net?.price ?? null,
        net: net?.net ?? null,
      });
    }
    line.seconds = Math.ceil(((line.create * 2 + line.update) * 60) / rules.pacing.perMinute);
    return line;
  });
  return {
    items: items.map(({ id, sku, title, photos }) => ({ id, sku, title, photo: photos[0]?.hash ?? null })),
    knots,
    accounts: summary,
    causes: causesOf(knots),
  };
}

function causesOf(knots: PlannedKnot[]): PublishPlan['causes'] {
  const causes = new Map<string, PublishPlan['causes'][number]>();
  for (const { accountId, issues } of knots) {
    for (const { message, field, mend, blocks } of issues) {
      if (!blocks) continue;
      const key = `${accountId}/${field}/${message}`;
      const cause = causes.get(key) ?? { message, accountId, field, mend, count: 0 };
      cause.count++;
      causes.set(key, cause);
    }
  }
  return [...causes.values()].sort((a, b) => b.count - a.count);
}

/**
 * Makes listings wanted and queues what has to be sent; what is not ready is left as a draft. In one transaction:
 * once it is answered it will happen, whatever is switched off meanwhile.
 */
export async function publish(
  actor: Actor,
  input: Publish,
): Promise<{ runId: number; queued: number; notReady: number }> {
  const plan = await planPublish(input);
  const accounts = await loadAccounts(database(), input.accounts);
  const go = plan.knots.filter((knot) => knot.action === 'create' || knot.action === 'update');
  const notReady = plan.knots.filter((knot) => knot.action === 'not-ready').length;
  if (go.length === 0)
    throw new NettingError(
      'not-ready',
      notReady ? 'None of these listings is ready to be sent' : 'There is nothing to send',
      { mend: 'Look at what is missing' },
    );
  return transaction(async (tx) => {
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'publish',
      title: `${counted(new Set(go.map((knot) => knot.itemId)).size, 'item')} to ${counted(new Set(go.map((knot) => knot.accountId)).size, 'account')}`,
      detail: { accounts: input.accounts },
      itemCount: go.length,
      byName: actor.name,
    });
    const ids = await wantLive(tx, go, accounts);
    const queued = await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId });
    return { runId, queued: Math.min(queued, ids.length), notReady };
  });
}

async function wantLive(
  tx: Parameters<Parameters<typeof transaction>[0]>[0],
  knots: PlannedKnot[],
  accounts: LoadedAccount[],
): Promise<number[]> {
  const itemIds = [...new Set(knots.map((knot) => knot.itemId))];
  await tx
    .insert(listing)
    .values(knots.map(({ itemId, accountId }) => ({ itemId, accountId, differences: {}, wanted: 'live' as const })))
    .onDuplicateKeyUpdate({ set: { wanted: 'live', remote: sql`if(remote in ('live', 'review'), remote, 'none')` } });
  const rows = await tx
    .select()
    .from(listing)
    .where(
      and(
        inArray(listing.itemId, itemIds),
        inArray(
          listing.accountId,
          accounts.map((one) => one.id),
        ),
        eq(listing.wanted, 'live'),
      ),
    );
  const chosen = new Set(knots.map((knot) => `${knot.itemId}/${knot.accountId}`));
  const concerned = rows.filter((row) => chosen.has(`${row.itemId}/${row.accountId}`));
  const items = new Map((await loadItems(tx, itemIds)).map((one) => [one.id, one]));
  const derived = concerned.flatMap((row) => {
    const item = items.get(row.itemId);
    const account = accounts.find((one) => one.id === row.accountId);
    if (!item || !account || row.wantedPrice !== null) return [];
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
