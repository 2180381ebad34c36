import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { jsonSchema } from '../../core/json';
import { canBeTaken } from '../../core/sync';
import { database } from '../../db/client';
import { listing } from '../../db/schema';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadItems } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';
import { isDrifted } from '../records/listings/is-drifted';
import { driftFields } from './settle-fields';

export const findDriftSchema = z.object({
  account: z.coerce.number().int().optional(),
  item: z.coerce.number().int().optional(),
  after: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export const driftViewSchema = z.object({
  listingId: z.number(),
  itemId: z.number(),
  accountId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  url: z.string().nullable(),
  seenAt: z.string().nullable(),
  fields: z.array(
    z.object({
      field: z.string(),
      sent: jsonSchema,
      ours: jsonSchema,
      theirs: jsonSchema,
      verdict: z.enum(['theirs', 'conflict']),
      canBeTaken: z.boolean(),
    }),
  ),
});
export type DriftView = z.infer<typeof driftViewSchema>;

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
        isDrifted,
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
