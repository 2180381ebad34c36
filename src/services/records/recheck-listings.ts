import { sql } from 'drizzle-orm';
import { database, transaction } from '../../db/client';
import { listing } from '../../db/schema';
import { loadAccounts } from './load-accounts';
import { refreshListings } from './refresh-listings';

/** Computes every listing of an account anew, in portions, so that what no longer fits is known before it fails. */
export async function recheckListings(accountId: number, portion = 200): Promise<void> {
  const accounts = await loadAccounts(database(), [accountId]);
  for (let after = 0; ; ) {
    const rows = await database()
      .select({ id: listing.id, itemId: listing.itemId })
      .from(listing)
      .where(sql`${listing.accountId} = ${accountId} and ${listing.id} > ${after}`)
      .orderBy(listing.id)
      .limit(portion);
    const last = rows.at(-1);
    if (!last) return;
    await transaction((tx) => refreshListings(tx, [...new Set(rows.map((row) => row.itemId))], accounts));
    after = last.id;
  }
}
