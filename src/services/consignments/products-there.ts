import { and, eq, inArray } from 'drizzle-orm';
import type { Item } from '../../core/item';
import type { Executor } from '../../db/client';
import { listing } from '../../db/schema';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { computeRow } from '../records/listings/compute-row';

/** What the account's catalogue calls each item; items that belong to no product are left out. */
export async function productsThere(
  db: Executor,
  items: readonly Item[],
  account: LoadedAccount,
): Promise<Map<number, string>> {
  const rows = await db
    .select()
    .from(listing)
    .where(and(eq(listing.accountId, account.id), inArray(listing.itemId, [0, ...items.map((one) => one.id)])));
  return new Map(
    items.flatMap((item): [number, string][] => {
      const { content } = computeRow(
        item,
        rows.find((row) => row.itemId === item.id),
        account,
      );
      return typeof content.product === 'string' && content.product ? [[item.id, content.product]] : [];
    }),
  );
}
