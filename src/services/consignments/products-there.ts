import { and, eq, inArray } from 'drizzle-orm';
import type { Item } from '../../core/item';
import type { Executor } from '../../db/client';
import { listing } from '../../db/schema';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { computeRow } from '../records/listings/compute-row';

/** What a thing is there: its product, and until when it is good. */
export type ThingThere = { product: string; expiresOn: string | null };

/** What the account's catalogue calls each item, as its listing would say it; items that belong to no product are left out. */
export async function productsThere(
  db: Executor,
  items: readonly Item[],
  account: LoadedAccount,
): Promise<Map<number, ThingThere>> {
  const rows = await db
    .select()
    .from(listing)
    .where(and(eq(listing.accountId, account.id), inArray(listing.itemId, [0, ...items.map((one) => one.id)])));
  const expiry = account.compiled.rules.extras.find((one) => one.type === 'date' && one.from?.includes('expiresOn'));
  return new Map(
    items.flatMap((item): [number, ThingThere][] => {
      const { content } = computeRow(
        item,
        rows.find((row) => row.itemId === item.id),
        account,
      );
      const { product } = content;
      if (typeof product !== 'string' || product === '') return [];
      const until = expiry ? content[`extra.${expiry.id}`] : null;
      return [[item.id, { product, expiresOn: typeof until === 'string' && until ? until : item.expiresOn }]];
    }),
  );
}
