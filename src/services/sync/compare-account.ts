import { and, eq, inArray, lt } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../config';
import { sameJson } from '../../core/json';
import { database } from '../../db/client';
import { account, listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';
import { openAccount } from '../records/accounts/open-account';
import { noteSeen } from './note-seen';

export const comparisonSchema = z.object({
  read: z.number(),
  differing: z.number(),
  gone: z.number(),
  unlinked: z.number(),
});
export type Comparison = z.infer<typeof comparisonSchema>;

/**
 * Reads everything that an account has listed, page by page, and compares it with what we hold: what changed there,
 * what is gone, and what is live there that no item of ours is linked with.
 */
export async function compareAccount(accountId: number): Promise<Comparison> {
  const began = new Date();
  const db = database();
  const { session, connector, account: loaded } = await openAccount(accountId);
  const result: Comparison = { read: 0, differing: 0, gone: 0, unlinked: 0 };
  for (let after: string | null = null; ; ) {
    const readAt = new Date();
    const page: { listings: RemoteListing[]; next: string | null } = await connector.listPage(session, after);
    result.read += page.listings.length;
    const ids = page.listings.map((one) => one.remoteId);
    const rows = ids.length
      ? await db
          .select({ id: listing.id, remoteId: listing.remoteId, seen: listing.seen, remote: listing.remote })
          .from(listing)
          .where(and(eq(listing.accountId, accountId), inArray(listing.remoteId, ids)))
      : [];
    const own = new Map(rows.map((row) => [row.remoteId, row]));
    const same: number[] = [];
    for (const shown of page.listings) {
      const row = own.get(shown.remoteId);
      if (!row) {
        if (shown.state === 'live') result.unlinked++;
        continue;
      }
      if (row.remote === shown.state && row.seen && sameJson(row.seen, shown.content)) {
        same.push(row.id);
        continue;
      }
      result.differing++;
      await noteSeen(loaded, row.id, shown, readAt);
    }
    if (same.length) await db.update(listing).set({ seenAt: new Date() }).where(inArray(listing.id, same));
    if (!page.next) break;
    after = page.next;
  }
  // What was live and does not stand in their list any more is gone; what was sent meanwhile is not judged.
  const [gone] = await db
    .update(listing)
    .set({ remote: 'gone', seenAt: new Date() })
    .where(
      and(
        eq(listing.accountId, accountId),
        inArray(listing.remote, ['live', 'review']),
        eq(listing.busy, false),
        // What was made just before may not stand in their list yet.
        lt(listing.sentAt, new Date(began.getTime() - config.readsLagMs)),
        lt(listing.seenAt, began),
      ),
    );
  result.gone = gone.affectedRows;
  await db.update(account).set({ comparedAt: new Date() }).where(eq(account.id, accountId));
  return result;
}
