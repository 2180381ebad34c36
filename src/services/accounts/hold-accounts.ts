import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';

export const holdAccountsSchema = z
  .object({ accounts: z.array(z.number().int()).min(1).max(50), stopped: z.boolean() })
  .strict();

/** Nothing is sent to these accounts until it is let go on; what is changed meanwhile waits in its order. */
export async function holdAccounts(
  _actor: Actor,
  { accounts, stopped }: z.infer<typeof holdAccountsSchema>,
): Promise<void> {
  await database()
    .update(account)
    .set({ pausedAt: stopped ? new Date() : null })
    .where(inArray(account.id, accounts));
}
