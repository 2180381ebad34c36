import { and, eq, lt } from 'drizzle-orm';
import type { Logger } from 'pino';
import { database } from '../db/client';
import { account, listing } from '../db/schema';
import type { AccountRow } from '../services/account-context';
import { openAccount } from '../services/accounts';
import { recordSale } from '../services/record-sale';
import { refreshRules } from '../services/refresh-rules';
import { look } from './inbox';

const everyMs = 60_000;
const rulesEveryMs = 600_000;
const rulesRead = new Map<number, number>();
const overlapMs = 600_000;

/** A review whose end nobody told: looked up after a minute. */
async function followReviews(accountId: number): Promise<void> {
  const waiting = await database()
    .select({ remoteId: listing.remoteId })
    .from(listing)
    .where(
      and(
        eq(listing.accountId, accountId),
        eq(listing.remote, 'review'),
        lt(listing.sentAt, new Date(Date.now() - everyMs)),
      ),
    )
    .limit(20);
  for (const { remoteId } of waiting) if (remoteId) await look(accountId, remoteId);
}

/** Asks for orders once a minute (and for the rules now and then), besides the events: one that got lost must not stay unheard. */
export async function pollOrders(row: AccountRow, log: Logger): Promise<void> {
  if (row.polledAt && Date.now() - row.polledAt.getTime() < everyMs) return;
  const db = database();
  await db.update(account).set({ polledAt: new Date() }).where(eq(account.id, row.id));
  try {
    const { session, connector } = await openAccount(row.id);
    const since = new Date((row.ordersSince?.getTime() ?? row.createdAt.getTime()) - overlapMs);
    const { orders, serverTime } = await connector.ordersSince(session, since);
    for (const order of orders) await recordSale(row.id, order);
    await followReviews(row.id);
    if (Date.now() - (rulesRead.get(row.id) ?? 0) > rulesEveryMs) {
      await refreshRules(row);
      rulesRead.set(row.id, Date.now());
    }
    // A full page may be followed by more: the next time goes on from its last order.
    const until = orders.length >= 200 ? orders.at(-1)?.soldAt : serverTime;
    await db
      .update(account)
      .set({ ordersSince: until ?? serverTime })
      .where(eq(account.id, row.id));
  } catch (error) {
    log.warn({ account: row.name, error: String(error) }, 'orders could not be asked for');
  }
}
