import { sql } from 'drizzle-orm';
import type { Overrides } from '../../../core/listing';
import type { Executor } from '../../../db/client';
import { type ListingRow, listing } from '../../../db/schema';
import { insertDrafts } from './insert-drafts';

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
  const made = await insertDrafts(
    db,
    fresh.map(({ itemId, accountId, overrides }) => ({ itemId, accountId, overrides })),
  );
  return [...known, ...made];
}
