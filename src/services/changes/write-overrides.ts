import { and, inArray, sql } from 'drizzle-orm';
import type { Overrides } from '../../core/listing';
import type { Executor } from '../../db/client';
import { type ListingRow, listing } from '../../db/schema';

export type WrittenOverrides = { itemId: number; accountId: number; row: ListingRow | undefined; overrides: Overrides };

/** Stores what is written for single accounts; an item that was not told there gets a draft. Returns the rows as they are now. */
export async function writeOverrides(
  db: Executor,
  written: readonly WrittenOverrides[],
  portion = 200,
): Promise<ListingRow[]> {
  const known = written.flatMap(({ row, overrides }) => (row ? [{ ...row, overrides }] : []));
  for (let from = 0; from < known.length; from += portion) {
    const values = known
      .slice(from, from + portion)
      .map((row) => sql`select ${row.id} as id, ${sql.param(row.overrides, listing.overrides)} as overrides`);
    await db.execute(
      sql`update listing l join (${sql.join(values, sql` union all `)}) v on v.id = l.id set l.overrides = v.overrides`,
    );
  }
  const fresh = written.filter(({ row }) => !row);
  if (fresh.length === 0) return known;
  await db
    .insert(listing)
    .values(
      fresh.map(({ itemId, accountId, overrides }) => ({ itemId, accountId, overrides, wanted: 'draft' as const })),
    );
  const made = await db
    .select()
    .from(listing)
    .where(
      and(
        inArray(listing.itemId, [...new Set(fresh.map((one) => one.itemId))]),
        inArray(listing.accountId, [...new Set(fresh.map((one) => one.accountId))]),
      ),
    );
  const isFresh = (row: ListingRow) =>
    fresh.some((one) => one.itemId === row.itemId && one.accountId === row.accountId);
  return [...known, ...made.filter(isFresh)];
}
