import { and, asc, eq, lte } from 'drizzle-orm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { database } from '../db/client';
import { account, inbox, listing } from '../db/schema';
import { refreshRules } from '../services/accounts/rules/refresh-rules';
import { openAccount } from '../services/records/accounts/open-account';
import { ingestOrder } from '../services/stock/ingest-order';
import { hearOffers } from '../services/sync/hear-offers';
import { noteSeen } from '../services/sync/note-seen';

type InboxRow = typeof inbox.$inferSelect;

const maxAttempts = 12;
const atOnce = 20;
/** Many orders may come at the same moment; they are read side by side, so that none waits for the others. */
const sideBySide = 6;

/** What they show now, beside what we sent: noticed, not overwritten. Returns when to look again, where that is too early. */
export async function look(accountId: number, remoteId: string): Promise<Date | null> {
  const { session, connector, account: loaded } = await openAccount(accountId, true);
  const [row] = await database()
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, remoteId)));
  if (!row) return null;
  const readAt = new Date();
  return noteSeen(loaded, row.id, await connector.read(session, remoteId), readAt);
}

/** @returns when to do it once more; null when it is done */
async function handle(row: InboxRow): Promise<Date | null> {
  const data = z.object({ listing: z.string(), order: z.string() }).partial().parse(row.data);
  switch (row.type) {
    case 'sale':
    case 'cancelled': {
      const { session, connector } = await openAccount(row.accountId, true);
      await ingestOrder(row.accountId, await connector.readOrder(session, data.order ?? ''));
      return null;
    }
    case 'changed':
    case 'ended':
    case 'reviewed':
      return look(row.accountId, data.listing ?? '');
    case 'offer':
      await hearOffers(row.accountId);
      return look(row.accountId, data.listing ?? '');
    case 'rules-changed': {
      const [shop] = await database().select().from(account).where(eq(account.id, row.accountId));
      if (shop) await refreshRules(shop);
      return null;
    }
    default:
      return null;
  }
}

async function workOff(row: InboxRow, log: Logger): Promise<void> {
  const db = database();
  const attempts = row.attempts + 1;
  try {
    const again = await handle(row);
    await db
      .update(inbox)
      .set(again ? { dueAt: again } : { state: 'done', attempts })
      .where(eq(inbox.id, row.id));
  } catch (error) {
    const final = attempts >= maxAttempts || (error instanceof NettingError && error.code === 'not-found');
    log.warn({ type: row.type, attempts, error: String(error) }, 'event not worked off');
    const dueAt = new Date(Date.now() + Math.min(60_000, 500 * 2 ** attempts));
    await db
      .update(inbox)
      .set({ state: final ? 'failed' : 'waiting', attempts, dueAt, message: String(error).slice(0, 1_000) })
      .where(eq(inbox.id, row.id));
  }
}

/**
 * Works off an account's events, sales before anything else; one that fails is tried again, later and later. Only the
 * worker that holds the account's lane does this, and an account that is slow keeps no other one waiting.
 */
export async function workInbox(accountId: number, log: Logger): Promise<number> {
  const due = await database()
    .select()
    .from(inbox)
    .where(and(eq(inbox.state, 'waiting'), eq(inbox.accountId, accountId), lte(inbox.dueAt, new Date())))
    .orderBy(asc(inbox.id))
    .limit(atOnce);
  const isSale = (row: InboxRow) => row.type === 'sale' || row.type === 'cancelled';
  const queue = [...due.filter(isSale), ...due.filter((row) => !isSale(row))];
  const hands = Array.from({ length: sideBySide }, async () => {
    for (let row = queue.shift(); row; row = queue.shift()) await workOff(row, log);
  });
  await Promise.all(hands);
  return due.length;
}
