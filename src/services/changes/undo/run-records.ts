import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Json } from '../../../core/json';
import type { Executor } from '../../../db/client';
import { changeRecord, listing } from '../../../db/schema';

/** One value that a run made another, with the account that it was written for. */
export type Recorded = {
  id: number;
  itemId: number;
  accountId: number | null;
  listingId: number | null;
  combination: string | null;
  field: string;
  from: Json;
  to: Json;
};

/** What of a run is meant: these items, or these very changes; all of it where nothing is said. */
export type RunPart = { items?: readonly number[]; changes?: readonly number[] };

/** What a run changed of the next items by their numbers, of each the newest first. */
export async function runRecords(
  db: Executor,
  runId: number,
  after: number,
  most: number,
  { items, changes }: RunPart = {},
): Promise<Recorded[]> {
  const meant = and(
    eq(changeRecord.runId, runId),
    items ? inArray(changeRecord.itemId, [...items]) : undefined,
    changes ? inArray(changeRecord.id, [...changes]) : undefined,
  );
  const found = await db
    .selectDistinct({ id: changeRecord.itemId })
    .from(changeRecord)
    .where(and(meant, gt(changeRecord.itemId, after)))
    .orderBy(asc(changeRecord.itemId))
    .limit(most);
  if (found.length === 0) return [];
  const ids = found.map((one) => one.id);
  const rows = await db
    .select({ record: changeRecord, accountId: listing.accountId })
    .from(changeRecord)
    .leftJoin(listing, eq(listing.id, changeRecord.listingId))
    .where(and(meant, inArray(changeRecord.itemId, ids)))
    .orderBy(asc(changeRecord.itemId), sql`${changeRecord.id} desc`);
  // the record holds JSON values only
  return rows.map(({ record, accountId }) => ({
    ...record,
    accountId,
    from: (record.from ?? null) as Json,
    to: (record.to ?? null) as Json,
  }));
}
