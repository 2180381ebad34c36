import { and, asc, eq, lte } from 'drizzle-orm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { driftedFields } from '../core/sync';
import { database } from '../db/client';
import { account, inbox, listing } from '../db/schema';
import { openAccount } from '../services/accounts';
import { recordSale } from '../services/record-sale';
import { refreshRules } from '../services/refresh-rules';
import { refusalOf } from './finish';

type InboxRow = typeof inbox.$inferSelect;

const maxAttempts = 12;

/** What they show now, beside what we sent: noticed, not overwritten. */
export async function look(accountId: number, remoteId: string): Promise<void> {
  const db = database();
  const { session, connector } = await openAccount(accountId);
  const [row] = await db
    .select()
    .from(listing)
    .where(and(eq(listing.accountId, accountId), eq(listing.remoteId, remoteId)));
  if (!row) return;
  const shown = await connector.read(session, remoteId);
  // Their quantity falls by sales, which come as events of their own.
  const { quantity: _ours, ...base } = row.base ?? {};
  const { quantity: _theirs, ...seen } = shown.content;
  await db
    .update(listing)
    .set({
      remote: shown.state,
      ...refusalOf(shown),
      seen: shown.content,
      seenAt: new Date(),
      drifted: driftedFields(base, seen).length > 0,
    })
    .where(eq(listing.id, row.id));
}

async function handle(row: InboxRow): Promise<void> {
  const data = z.object({ listing: z.string(), order: z.string() }).partial().parse(row.data);
  switch (row.type) {
    case 'sale': {
      const { session, connector } = await openAccount(row.accountId);
      await recordSale(row.accountId, await connector.readOrder(session, data.order ?? ''));
      return;
    }
    case 'changed':
    case 'ended':
    case 'reviewed':
      return look(row.accountId, data.listing ?? '');
    case 'rules-changed': {
      const [shop] = await database().select().from(account).where(eq(account.id, row.accountId));
      if (shop) await refreshRules(shop);
      return;
    }
    default:
      return;
  }
}

/** Works off events in the order of their coming; one that fails is tried again, later and later. */
export async function workInbox(log: Logger): Promise<number> {
  const db = database();
  const due = await db
    .select()
    .from(inbox)
    .where(and(eq(inbox.state, 'waiting'), lte(inbox.dueAt, new Date())))
    .orderBy(asc(inbox.id))
    .limit(20);
  for (const row of due) {
    try {
      await handle(row);
      await db
        .update(inbox)
        .set({ state: 'done', attempts: row.attempts + 1 })
        .where(eq(inbox.id, row.id));
    } catch (error) {
      const attempts = row.attempts + 1;
      const final = attempts >= maxAttempts || (error instanceof NettingError && error.code === 'not-found');
      log.warn({ type: row.type, attempts, error: String(error) }, 'event not worked off');
      const dueAt = new Date(Date.now() + Math.min(60_000, 500 * 2 ** attempts));
      await db
        .update(inbox)
        .set({ state: final ? 'failed' : 'waiting', attempts, dueAt, message: String(error).slice(0, 1_000) })
        .where(eq(inbox.id, row.id));
    }
  }
  return due.length;
}
