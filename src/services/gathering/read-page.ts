import { and, eq, isNull, lt, sql } from 'drizzle-orm';
import type { Executor } from '../../db/client';
import { foundListing } from '../../db/schema';
import { openAccount } from '../records/accounts/open-account';
import { isWaiting } from './found-filter';
import { keepFound } from './keep-found';

export type ReadPage = { next: string | null; read: number };

/** Reads one page of what an account has listed and keeps it. Nothing of the shop is held while it is asked for. */
export async function readPage(db: Executor, accountId: number, after: string | null): Promise<ReadPage> {
  const readAt = new Date();
  const { session, connector, account } = await openAccount(accountId);
  const { listings, next } = await connector.listPage(session, after);
  await keepFound(db, account, listings, readAt);
  return { next, read: listings.length };
}

/** What was chosen and does not stand there any more is not brought in: it may have been sold meanwhile. */
export async function noteGone(db: Executor, accountId: number, since: Date): Promise<void> {
  await db
    .update(foundListing)
    .set({ state: 'gone', said: 'It does not stand there any more' })
    .where(and(eq(foundListing.accountId, accountId), lt(foundListing.readAt, since), isNull(foundListing.itemId)));
}

/** Forgets what stood there at an earlier reading and does not any more, unless it waits to be brought in. */
export async function forgetGone(db: Executor, accountId: number, since: Date): Promise<void> {
  await db
    .delete(foundListing)
    .where(
      and(
        eq(foundListing.accountId, accountId),
        lt(foundListing.readAt, since),
        isNull(foundListing.itemId),
        sql`not ${isWaiting}`,
      ),
    );
}
