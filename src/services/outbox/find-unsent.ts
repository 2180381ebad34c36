import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fieldsFor } from '../../core/field';
import type { Json } from '../../core/json';
import { isPhotoReference } from '../../core/photo/reference';
import { diff } from '../../core/sync';
import { database } from '../../db/client';
import { listing } from '../../db/schema';
import { shortly } from '../changes/many/shortly';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { loadItems } from '../records/items/load-items';
import { computeRow } from '../records/listings/compute-row';

export const findUnsentSchema = z.object({
  account: z.coerce.number().int().optional(),
  after: z.coerce.number().int().min(0).default(0).describe('The `next` of the page before'),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});

export const unsentListingSchema = z.object({
  listingId: z.number(),
  accountId: z.number(),
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  /** Something is on its way already. */
  busy: z.boolean(),
  /** Why it would not be taken as it is now; empty when it would. */
  problem: z.string(),
  fields: z.array(
    z.object({
      field: z.string(),
      label: z.string(),
      /** What was last sent, and what is wanted, in words. */
      there: z.string(),
      wanted: z.string(),
      /** Of photos: what stands there, and what will, in their order and shape; those that are not ours are left out. */
      photos: z.object({ there: z.array(z.string()), wanted: z.array(z.string()) }).nullable(),
    }),
  ),
});
export type UnsentListing = z.infer<typeof unsentListingSchema>;

const referencesIn = (value: Json): string[] =>
  Array.isArray(value) ? value.map(String).filter(isPhotoReference) : [];
const saidPhotos = (value: Json): string => {
  const count = Array.isArray(value) ? value.length : 0;
  return count ? `${count} ${count === 1 ? 'photo' : 'photos'}` : '';
};

/** Live listings whose changes have not been sent, field by field. */
export async function findUnsent({
  account,
  after,
  limit,
}: z.infer<typeof findUnsentSchema>): Promise<{ listings: UnsentListing[]; next: number | null }> {
  const db = database();
  const rows = await db
    .select()
    .from(listing)
    .where(
      and(
        inArray(listing.state, ['changed', 'conflict', 'attention']),
        sql`${listing.remote} = 'live' and ${listing.dirty} = 1`,
        gt(listing.id, after),
        account === undefined ? undefined : eq(listing.accountId, account),
      ),
    )
    .orderBy(asc(listing.id))
    .limit(limit + 1);
  const page = rows.slice(0, limit);
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  const custom = await loadCustomFields(db);
  const items = new Map((await loadItems(db, [...new Set(page.map((row) => row.itemId))])).map((one) => [one.id, one]));
  const listings = page.flatMap((row): UnsentListing[] => {
    const item = items.get(row.itemId);
    const shop = accounts.get(row.accountId);
    if (!item || !shop) return [];
    const { rules } = shop.compiled;
    const computed = computeRow(item, row, shop);
    const labels = new Map(computed.values.map((one) => [one.field, one.label]));
    const catalogue = fieldsFor(custom, rules);
    return [
      {
        listingId: row.id,
        accountId: row.accountId,
        itemId: item.id,
        sku: item.sku,
        title: item.title,
        photo: item.photos[0]?.hash ?? null,
        busy: row.busy,
        problem: computed.issues.find((issue) => issue.blocks)?.message ?? '',
        fields: diff(row.sent ?? {}, computed.content).map(({ field, from, to }) => {
          const known = catalogue.listing(field);
          const text = (value: Json) =>
            known ? shortly(known, value, rules.currency) : value === null ? '' : JSON.stringify(value);
          const isPhotos = field === 'photos';
          return {
            field,
            label: labels.get(field) ?? known?.label ?? field,
            there: isPhotos ? saidPhotos(from) : text(from),
            wanted: isPhotos ? saidPhotos(to) : text(to),
            photos: isPhotos ? { there: referencesIn(from), wanted: referencesIn(to) } : null,
          };
        }),
      },
    ];
  });
  return { listings, next: rows.length > limit ? (page.at(-1)?.id ?? null) : null };
}
