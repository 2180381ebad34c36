import { and, eq, inArray, lt, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { NettingError } from '../core/errors';
import { database, isAway } from '../db/client';
import type { AccountRow } from '../db/schema';
import { account, inbox, listing, sale } from '../db/schema';
import { connectorOf, type OrderPage, type RemoteOrder } from '../markets';
import { refreshRules } from '../services/accounts/rules/refresh-rules';
import { openAccount } from '../services/records/accounts/open-account';
import { hearingEveryMs } from '../services/records/listings/hearing';
import { endedOpen, uncertainFor } from '../services/records/listings/open-create';
import { ingestOrder } from '../services/stock/ingest-order';
import { catchUp } from '../services/sync/catch-up';
import { compareAccount } from '../services/sync/compare-account';
import { hearClock } from '../services/sync/hear-clock';
import { hearOffers } from '../services/sync/hear-offers';
import { noteNotMade, queueLook } from '../services/sync/settle-open';
import { look } from './inbox';

const rulesEveryMs = 600_000;
const rulesRead = new Map<number, number>();
const overlapMs = 600_000;
/** Listings are compared as a whole once a night, those of marketplaces without events every few minutes. */
const compareEveryMs = 24 * 3_600_000;
const compareWithoutEventsMs = 300_000;

const reviewMs = 60_000;
/** A review whose end nobody told: looked up after a minute. */
async function followReviews(accountId: number, log: Logger): Promise<void> {
  const waiting = await database()
    .select({ remoteId: listing.remoteId })
    .from(listing)
    .where(
      and(
        eq(listing.accountId, accountId),
        eq(listing.remote, 'review'),
        lt(listing.sentAt, new Date(Date.now() - reviewMs)),
      ),
    )
    .limit(20);
  for (const { remoteId } of waiting)
    if (remoteId)
      await look(accountId, remoteId).catch((error: unknown) => {
        if (!(error instanceof NettingError) || error.code !== 'not-found') throw error;
        log.info({ remoteId }, 'a listing under review is not there');
      });
}

/** What may stand there after its creation gave up is looked for, so that it does not stay unknown. */
async function settleOpen(accountId: number, log: Logger): Promise<void> {
  const rows = await database()
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.remote, 'maybe'), eq(listing.busy, false)))
    .limit(20);
  if (rows.length === 0) return;
  const { session, connector } = await openAccount(accountId, true);
  for (const { id } of rows) {
    const open = await endedOpen(id);
    const found = open && (await connector.findLive(session, String(open.request.content.sku)));
    // What is there is taken over by a job, which does with it what is wanted by now.
    if (found?.length) await queueLook(id);
    else if (!open || uncertainFor(open.request) === 0) await noteNotMade(id);
    else continue;
    log.info({ listing: id, found: found?.length ?? 0 }, 'a creation without an answer is settled');
  }
}

function compareIsDue(row: AccountRow, hasWebhooks: boolean, now: Date): boolean {
  const last = row.comparedAt?.getTime() ?? row.createdAt.getTime();
  if (!hasWebhooks) return now.getTime() - last > compareWithoutEventsMs;
  const isNight = now.getUTCHours() >= 1 && now.getUTCHours() < 5;
  return now.getTime() - last > (isNight ? compareEveryMs / 2 : 2 * compareEveryMs);
}

/** An order that cannot be read or recorded now is tried again by itself, and keeps none of the others unheard. */
async function putAside(accountId: number, orderId: string, why: string): Promise<void> {
  await database()
    .insert(inbox)
    .values({
      messageId: `${accountId}/order/${orderId}`.slice(0, 120),
      accountId,
      type: 'sale',
      data: { order: orderId },
      message: why.slice(0, 1_000),
      dueAt: new Date(),
      receivedAt: new Date(),
    })
    // Heard once already and recorded then: what has become of it since is heard again.
    .onDuplicateKeyUpdate({
      set: { message: why.slice(0, 1_000), state: sql`if(${inbox.state} = 'done', 'waiting', ${inbox.state})` },
    });
}

/** Orders of which not everything is recorded already, each with all of its lines. */
async function news(accountId: number, lines: RemoteOrder[]): Promise<RemoteOrder[][]> {
  if (lines.length === 0) return [];
  const known = await database()
    .select({ orderId: sale.orderId, line: sale.line, state: sale.state, rawState: sale.rawState })
    .from(sale)
    .where(
      and(
        eq(sale.accountId, accountId),
        inArray(
          sale.orderId,
          lines.map((one) => one.orderId),
        ),
      ),
    );
  const stored = new Map(known.map((one) => [`${one.orderId}/${one.line}`, one]));
  const isNew = (one: RemoteOrder) => {
    const before = stored.get(`${one.orderId}/${one.line}`);
    return !before || (one.cancelled ? before.state !== 'cancelled' : before.rawState !== one.rawState);
  };
  const ids = new Set(lines.filter(isNew).map((one) => one.orderId));
  return [...ids].map((id) => lines.filter((one) => one.orderId === id));
}

/** Hears every order since the last time, page by page; how far it has come is kept after each. */
async function hearOrders(row: AccountRow, log: Logger): Promise<void> {
  const db = database();
  const { session, connector } = await openAccount(row.id, true);
  const since = new Date((row.ordersSince?.getTime() ?? row.createdAt.getTime()) - overlapMs);
  for (let after: string | null = null; ; ) {
    const page: OrderPage = await connector.ordersSince(session, since, after);
    for (const order of await news(row.id, page.orders))
      await ingestOrder(row.id, order).catch(async (error: unknown) => {
        if (isAway(error)) throw error;
        const orderId = order[0]?.orderId ?? '';
        log.warn({ account: row.name, order: orderId, error: String(error) }, 'order not recorded');
        await putAside(row.id, orderId, String(error));
      });
    for (const orderId of page.unread) {
      log.warn({ account: row.name, order: orderId }, 'order not readable');
      await putAside(row.id, orderId, 'It is not written as the marketplace describes its orders');
    }
    const reached = page.next === null ? page.serverTime : page.orders.at(-1)?.changedAt;
    if (reached) await db.update(account).set({ ordersSince: reached }).where(eq(account.id, row.id));
    if (after === null) await hearClock(row, page.serverTime);
    if (page.next === null || page.next === after) break;
    after = page.next;
  }
  await db.update(account).set({ heardAt: new Date() }).where(eq(account.id, row.id));
}

const under = new Set<number>();

/** Asks for orders now and then (and for the rules, and for everything listed), besides the events: one that got lost must not stay unheard. */
export async function pollOrders(row: AccountRow, log: Logger): Promise<void> {
  if (under.has(row.id)) return;
  const db = database();
  under.add(row.id);
  try {
    if (row.polledAt && Date.now() - row.polledAt.getTime() < hearingEveryMs(row.market)) return;
    await db.update(account).set({ polledAt: new Date() }).where(eq(account.id, row.id));
    await hearOrders(row, log);
    if (row.restoredAt) {
      await catchUp(row.id);
      log.info({ account: row.name }, 'compared after it was brought back');
    }
    await hearOffers(row.id);
    await followReviews(row.id, log);
    await settleOpen(row.id, log);
    if (Date.now() - (rulesRead.get(row.id) ?? 0) > rulesEveryMs) {
      await refreshRules(row);
      rulesRead.set(row.id, Date.now());
    }
    if (compareIsDue(row, connectorOf(row.market).hasWebhooks, new Date())) await compareAccount(row.id);
  } catch (error) {
    log.warn({ account: row.name, error: String(error) }, 'orders could not be asked for');
  } finally {
    under.delete(row.id);
  }
}
