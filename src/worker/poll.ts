import { and, eq, lt } from 'drizzle-orm';
import type { Logger } from 'pino';
import { database } from '../db/client';
import type { AccountRow } from '../db/schema';
import { account, listing } from '../db/schema';
import { connectorOf } from '../markets';
import { refreshRules } from '../services/accounts/refresh-rules';
import { openAccount } from '../services/records/open-account';
import { ingestOrder } from '../services/stock/ingest-order';
import { compareAccount } from '../services/sync/compare-account';
import { look } from './inbox';

const everyMs = 60_000;
/** Marketplaces without events are asked often: a sale there must be heard of soon. */
const withoutEventsMs = 5_000;
const rulesEveryMs = 600_000;
const rulesRead = new Map<number, number>();
const overlapMs = 600_000;
/** Listings are compared as a whole once a night, those of marketplaces without events every few minutes. */
const compareEveryMs = 24 * 3_600_000;
const compareWithoutEventsMs = 300_000;

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

function compareIsDue(row: AccountRow, hasWebhooks: boolean, now: Date): boolean {
  const last = row.comparedAt?.getTime() ?? row.createdAt.getTime();
  if (!hasWebhooks) return now.getTime() - last > compareWithoutEventsMs;
  const isNight = now.getUTCHours() >= 1 && now.getUTCHours() < 5;
  return now.getTime() - last > (isNight ? compareEveryMs / 2 : 2 * compareEveryMs);
}

const under = new Set<number>();

/** Asks for orders now and then (and for the rules, and for everything listed), besides the events: one that got lost must not stay unheard. */
export async function pollOrders(row: AccountRow, log: Logger): Promise<void> {
  if (under.has(row.id)) return;
  const db = database();
  under.add(row.id);
  try {
    const { hasWebhooks } = connectorOf(row.market);
    const pause = hasWebhooks ? everyMs : withoutEventsMs;
    if (row.polledAt && Date.now() - row.polledAt.getTime() < pause) return;
    const { session, connector } = await openAccount(row.id, true);
    await db.update(account).set({ polledAt: new Date() }).where(eq(account.id, row.id));
    const since = new Date((row.ordersSince?.getTime() ?? row.createdAt.getTime()) - overlapMs);
    const { orders, serverTime } = await connector.ordersSince(session, since);
    for (const order of orders) await ingestOrder(row.id, order);
    await followReviews(row.id);
    if (Date.now() - (rulesRead.get(row.id) ?? 0) > rulesEveryMs) {
      await refreshRules(row);
      rulesRead.set(row.id, Date.now());
    }
    // A full page may be followed by more: the next time goes on from its last order.
    const until = orders.length >= 200 ? orders.at(-1)?.changedAt : serverTime;
    await db
      .update(account)
      .set({ ordersSince: until ?? serverTime })
      .where(eq(account.id, row.id));
    if (compareIsDue(row, hasWebhooks, new Date())) await compareAccount(row.id);
  } catch (error) {
    log.warn({ account: row.name, error: String(error) }, 'orders could not be asked for');
  } finally {
    under.delete(row.id);
  }
}
