import { and, asc, desc, eq, inArray, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import {
  fullPace,
  noRenewal,
  paceOn,
  priorities,
  type RenewalFacts,
  renewalOrder,
  renewalRuleSchema,
  renewalVerdict,
  secondsFor,
} from '../core/sync';
import { database, type Executor, transaction, withConnection } from '../db/client';
import { account as accountTable, item, job, listing, run } from '../db/schema';
import { loadAccounts } from './account-context';
import { accountCounts } from './account-counts';
import { type Actor, systemActor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { rowsOf } from './find-items';
import { loadItems } from './load-items';
import { netOfContent } from './net-input';
import { computeRow, type ListingRow } from './refresh-listings';

export const findRenewalsSchema = z.object({
  account: z.coerce.number().int().optional(),
  order: z.enum(['due', 'longest', 'newest']).default('due'),
  minDays: z.coerce.number().int().min(0).max(3_650).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
});

export type RenewalView = {
  listingId: number;
  itemId: number;
  accountId: number;
  sku: string;
  title: string;
  photo: string | null;
  liveSince: string | null;
  renewsAt: string | null;
  days: number | null;
  daysToTheirs: number | null;
  timesMade: number;
  blocks: string | null;
  /** What became of its renewal, while there is one: waiting, running, failed and why. */
  job: { state: string; message: string | null } | null;
};

const factsOf = (row: ListingRow, quantity: number): RenewalFacts => ({
  state: row.remote === 'live' ? 'live' : row.remote === 'review' ? 'review' : 'elsewhere',
  liveSince: row.liveSince,
  renewsAt: row.renewsAt,
  offersOpen: row.offersOpen,
  quantity: Math.min(quantity, row.wantedQuantity),
  busy: row.busy,
});

/** Live listings with their age: the longest unrenewed, the newest, or those that the marketplace would renew soonest. */
export async function findRenewals(input: z.infer<typeof findRenewalsSchema>): Promise<{ listings: RenewalView[] }> {
  const now = new Date();
  const rows = await database()
    .select({ listing, sku: item.sku, title: item.title, photo: item.mainPhoto, quantity: item.quantity })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        inArray(listing.remote, ['live', 'review']),
        eq(listing.wanted, 'live'),
        input.account ? eq(listing.accountId, input.account) : undefined,
        input.minDays > 0
          ? sql`${listing.liveSince} <= ${new Date(now.getTime() - input.minDays * 86_400_000)}`
          : undefined,
      ),
    )
    .orderBy(
      ...(input.order === 'newest'
        ? [desc(listing.liveSince)]
        : input.order === 'longest'
          ? [asc(listing.liveSince)]
          : [sql`${listing.renewsAt} is null`, asc(listing.renewsAt), asc(listing.liveSince)]),
    )
    .limit(input.limit);
  const jobs = await latestRenewals(rows.map((row) => row.listing.id));
  return {
    listings: rows.map(({ listing: row, quantity, ...thing }) => {
      const { blocks, days, daysToTheirs } = renewalVerdict(
        factsOf(row, quantity),
        { minDays: 0, withinDays: null },
        now,
      );
      return {
        listingId: row.id,
        itemId: row.itemId,
        accountId: row.accountId,
        ...thing,
        liveSince: row.liveSince?.toISOString() ?? null,
        renewsAt: row.renewsAt?.toISOString() ?? null,
        days,
        daysToTheirs,
        timesMade: row.timesMade,
        blocks,
        job: jobs.get(row.id) ?? null,
      };
    }),
  };
}

async function latestRenewals(ids: number[]): Promise<Map<number, { state: string; message: string | null }>> {
  if (ids.length === 0) return new Map();
  const rows = await database()
    .select({ listingId: job.listingId, state: job.state, message: job.message })
    .from(job)
    .where(and(inArray(job.listingId, ids), or(eq(job.kind, 'renew'), eq(job.outcome, 'renewed'))))
    .orderBy(asc(job.id));
  return new Map(rows.map((row) => [row.listingId, { state: row.state, message: row.message }]));
}

const chosen = z.object({ listings: z.array(z.number().int()).min(1).max(5_000) }).strict();
export const renewSchema = chosen;

export type RenewalPlan = {
  count: number;
  blocked: { reason: string; count: number }[];
  accounts: {
    accountId: number;
    name: string;
    count: number;
    fees: number;
    currency: string;
    seconds: number;
    reviewed: boolean;
  }[];
};

async function chosenRows(db: Executor, ids: number[]) {
  return db
    .select({ listing, quantity: item.quantity, cost: item.cost })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(inArray(listing.id, ids));
}

/** What renewing these would mean: how many, what the marketplaces charge for it, how long it takes, what blocks which. */
export async function planRenewal(input: z.infer<typeof renewSchema>): Promise<RenewalPlan> {
  const db = database();
  const now = new Date();
  const rows = await chosenRows(db, input.listings);
  const accounts = await loadAccounts(db, [...new Set(rows.map((row) => row.listing.accountId))]);
  const items = new Map(
    (await loadItems(db, [...new Set(rows.map((row) => row.listing.itemId))])).map((one) => [one.id, one]),
  );
  const countsOf = await accountCounts(db);
  const blocked = new Map<string, number>();
  const lines = new Map<number, RenewalPlan['accounts'][number]>();
  for (const { listing: row, quantity, cost } of rows) {
    const account = accounts.find((one) => one.id === row.accountId);
    const thing = items.get(row.itemId);
    if (!account || !thing) continue;
    const { blocks } = renewalVerdict(factsOf(row, quantity), { minDays: 0, withinDays: null }, now);
    const computed = computeRow(thing, { ...row, remote: 'none', sent: null }, account);
    const why = blocks ?? (computed.ready ? null : `Not ready: ${computed.issues.find((one) => one.blocks)?.message}`);
    if (why) {
      blocked.set(why, (blocked.get(why) ?? 0) + 1);
      continue;
    }
    const { rules } = account.compiled;
    const line = lines.get(account.id) ?? {
      accountId: account.id,
      name: account.name,
      count: 0,
      fees: 0,
      currency: rules.currency,
      seconds: 0,
      reviewed: rules.reviewed ?? false,
    };
    const { live } = countsOf(account.id);
    line.count++;
    line.fees += netOfContent(account, computed.content, cost, live)?.fees.listing ?? 0;
    lines.set(account.id, line);
  }
  for (const line of lines.values()) {
    const account = accounts.find((one) => one.id === line.accountId);
    if (!account) continue;
    const pace = paceOn(account.compiled.rules.pacing, account.row.ownPace ?? fullPace, now);
    const { today } = countsOf(line.accountId);
    line.seconds = secondsFor({ create: 0, update: 0, end: 0, renew: line.count }, pace, today);
  }
  return {
    count: [...lines.values()].reduce((sum, line) => sum + line.count, 0),
    blocked: [...blocked].map(([reason, count]) => ({ reason, count })).sort((a, b) => b.count - a.count),
    accounts: [...lines.values()],
  };
}

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

export const renewalPlanSchema = renewalRuleSchema;

/** Says which listings of an account are renewed by themselves, and how many a day. */
export async function setRenewalRule(
  _actor: Actor,
  accountId: number,
  rule: z.infer<typeof renewalRuleSchema>,
): Promise<{ due: number }> {
  const [result] = await database().update(accountTable).set({ renewal: rule }).where(eq(accountTable.id, accountId));
  if (result.affectedRows === 0) throw new NettingError('not-found', 'There is no such account');
  return { due: (await dueListings(accountId, { ...noRenewal, ...rule }, new Date(), 100_000)).length };
}

async function dueListings(
  accountId: number,
  rule: z.infer<typeof renewalRuleSchema>,
  now: Date,
  most: number,
): Promise<number[]> {
  const rows = await database()
    .select({ listing, quantity: item.quantity })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(
      and(
        eq(listing.accountId, accountId),
        eq(listing.remote, 'live'),
        eq(listing.wanted, 'live'),
        eq(listing.problem, false),
        sql`${listing.liveSince} <= ${new Date(now.getTime() - rule.minDays * 86_400_000)}`,
      ),
    )
    .orderBy(asc(listing.liveSince))
    .limit(10_000);
  return rows
    .filter(({ listing: row, quantity }) => renewalVerdict(factsOf(row, quantity), rule, now).due)
    .sort((a, b) => renewalOrder(a.listing, b.listing))
    .slice(0, most)
    .map((row) => row.listing.id);
}

/** The daily routine: for each account with a rule, as many as are left of the day's number. One worker at a time does it. */
export async function planDailyRenewals(now: Date): Promise<number> {
  return withConnection(async (connection) => {
    const name = 'netting-daily-renewals';
    const [locked] = await connection.query('select get_lock(?, 0) as held', [name]);
    if (!(locked as { held: number }[])[0]?.held) return 0;
    try {
      return await planAccounts(now);
    } finally {
      await connection.query('select release_lock(?)', [name]);
    }
  });
}

async function planAccounts(now: Date): Promise<number> {
  const accounts = await database().select().from(accountTable).where(eq(accountTable.state, 'connected'));
  let planned = 0;
  for (const row of accounts) {
    if (!row.renewal?.on || row.pausedAt) continue;
    const [today] = rowsOf<{ count: number }>(
      await database().execute(
        sql`select count(*) as count from job where account_id = ${row.id} and (kind = 'renew' or outcome = 'renewed') and created_at >= utc_date()`,
      ),
    );
    const left = row.renewal.mostPerDay - (today?.count ?? 0);
    if (left <= 0) continue;
    const listings = await dueListings(row.id, row.renewal, now, left);
    if (listings.length === 0) continue;
    await renew(systemActor, { listings }, `Daily: ${listings.length.toLocaleString('en')} on ${row.name}`);
    planned += listings.length;
  }
  return planned;
}
