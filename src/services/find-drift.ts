import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Json } from '../core/json';
import { canBeTaken, priorities } from '../core/sync';
import { database, transaction } from '../db/client';
import { item, listing, run } from '../db/schema';
import { loadAccounts } from './account-context';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { keepNumbers } from './former-numbers';
import { loadItems } from './load-items';
import { computeRow, refreshListings } from './refresh-listings';
import { driftFields } from './settle-drift';

export const findDriftSchema = z.object({
  account: z.coerce.number().int().optional(),
  item: z.coerce.number().int().optional(),
  after: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export type DriftView = {
  listingId: number;
  itemId: number;
  accountId: number;
  sku: string;
  title: string;
  photo: string | null;
  url: string | null;
  seenAt: string | null;
  fields: {
    field: string;
    sent: Json;
    ours: Json;
    theirs: Json;
    verdict: 'theirs' | 'conflict';
    canBeTaken: boolean;
  }[];
};

/** Listings that the marketplace shows differently from what we sent, field by field, with both sides. */
export async function findDrift(
  input: z.infer<typeof findDriftSchema>,
): Promise<{ listings: DriftView[]; next: number | null }> {
  const db = database();
  const rows = await db
    .select()
    .from(listing)
    .where(
      and(
        eq(listing.drifted, true),
        eq(listing.remote, 'live'),
        input.account ? eq(listing.accountId, input.account) : undefined,
        input.item ? eq(listing.itemId, input.item) : undefined,
        input.after ? gt(listing.id, input.after) : undefined,
      ),
    )
    .orderBy(listing.id)
    .limit(input.limit + 1);
  const some = rows.slice(0, input.limit);
  const accounts = await loadAccounts(db, [...new Set(some.map((row) => row.accountId))]);
  const items = new Map((await loadItems(db, [...new Set(some.map((row) => row.itemId))])).map((one) => [one.id, one]));
  const listings = some.flatMap((row): DriftView[] => {
    const account = accounts.find((one) => one.id === row.accountId);
    const thing = items.get(row.itemId);
    if (!account || !thing) return [];
    const fields = driftFields(row, computeRow(thing, row, account), account);
    if (fields.length === 0) return [];
    return [
      {
        listingId: row.id,
        itemId: row.itemId,
        accountId: row.accountId,
        sku: thing.sku,
        title: thing.title,
        photo: thing.photos[0]?.hash ?? null,
        url: row.remoteUrl,
        seenAt: row.seenAt?.toISOString() ?? null,
        fields: fields.map((one) => ({
          field: one.field,
          sent: one.sent,
          ours: one.wanted,
          theirs: one.seen,
          verdict: one.verdict === 'conflict' ? 'conflict' : 'theirs',
          canBeTaken: canBeTaken(one.field),
        })),
      },
    ];
  });
  return { listings, next: rows.length > input.limit ? (some.at(-1)?.id ?? null) : null };
}

export type GoneView = {
  listingId: number;
  itemId: number;
  accountId: number;
  sku: string;
  title: string;
  photo: string | null;
  quantity: number;
  since: string | null;
};

const isGone = and(
  eq(listing.wanted, 'live'),
  inArray(listing.remote, ['ended', 'gone']),
  eq(listing.busy, false),
  gt(item.quantity, 0),
);

/** Listings that we want live, that have stock, and that are not there any more. */
export async function findGone(limit = 500): Promise<{ gone: GoneView[] }> {
  const rows = await database()
    .select({
      listingId: listing.id,
      itemId: item.id,
      accountId: listing.accountId,
      sku: item.sku,
      title: item.title,
      photo: item.mainPhoto,
      quantity: item.quantity,
      since: listing.seenAt,
    })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(isGone)
    .orderBy(listing.id)
    .limit(limit);
  return { gone: rows.map((row) => ({ ...row, since: row.since?.toISOString() ?? null })) };
}

export const settleGoneSchema = z
  .object({ listings: z.array(z.number().int()).min(1).max(2_000), how: z.enum(['end', 'make-again']) })
  .strict();

/** What is gone there ends here as well, or is made again under a new number. */
export async function settleGone(actor: Actor, input: z.infer<typeof settleGoneSchema>): Promise<{ settled: number }> {
  return transaction(async (tx) => {
    const rows = await tx
      .select({ listing })
      .from(listing)
      .innerJoin(item, eq(item.id, listing.itemId))
      .where(and(isGone, inArray(listing.id, input.listings)))
      .for('update');
    if (rows.length === 0) throw new NettingError('too-late', 'This has been settled already');
    const ids = rows.map((row) => row.listing.id);
    if (input.how === 'end') {
      await tx.update(listing).set({ wanted: 'ended' }).where(inArray(listing.id, ids));
      return { settled: ids.length };
    }
    await keepNumbers(tx, sql`l.id in ${ids}`, 'made-again');
    await tx.update(listing).set({ remote: 'none', remoteId: null, remoteUrl: null }).where(inArray(listing.id, ids));
    await refreshListings(tx, [...new Set(rows.map((row) => row.listing.itemId))]);
    const [{ insertId: runId }] = await tx.insert(run).values({
      kind: 'settle',
      title: `${ids.length} made again`,
      detail: {},
      itemCount: ids.length,
      byName: actor.name,
    });
    await enqueueJobs(tx, { where: sql`l.id in ${ids}`, priority: priorities.create, runId });
    return { settled: ids.length };
  });
}
