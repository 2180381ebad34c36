import { type SQL, sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { account } from '../../../db/schema';

/** What these accounts' listings follow from is another now: who is just computing with what was before finds out. */
export async function contextChanged(db: Executor, accounts: SQL): Promise<void> {
  await db
    .update(account)
    .set({ contextVersion: sql`${account.contextVersion} + 1` })
    .where(accounts);
}
