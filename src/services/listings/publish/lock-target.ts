import { and, eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import type { Tx } from '../../../db/client';
import { account, item, listing } from '../../../db/schema';

export const knot = (itemId: number, accountId: number) =>
  and(eq(listing.itemId, itemId), eq(listing.accountId, accountId));

export async function lockTarget(tx: Tx, itemId: number, accountId: number) {
  const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId)).for('update');
  const [shop] = await tx.select({ id: account.id }).from(account).where(eq(account.id, accountId));
  if (!row || !shop) throw new NettingError('not-found', 'There is no such item or account');
  const [stored] = await tx.select().from(listing).where(knot(itemId, accountId)).for('update');
  return { version: row.version, stored };
}
