import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { fullPace, ownPaceSchema } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadAccounts } from '../records/accounts/load-accounts';

export const accountPaceSchema = z
  .object({
    pace: ownPaceSchema,
    reserve: z.number().int().min(0).max(100_000),
    cap: z.number().int().min(1).max(1_000_000).nullable(),
    relistCancelled: z.boolean(),
    /** The account whose warehouse sends what is sold here, too. */
    servedBy: z.number().int().positive().nullable(),
  })
  .partial()
  .strict();

/** How fast an account is used, and how much of the stock it may offer. Returns whether listings have to be computed anew. */
export async function setAccountPace(
  _actor: Actor,
  accountId: number,
  input: z.infer<typeof accountPaceSchema>,
): Promise<{ stockChanged: boolean }> {
  if (input.servedBy) await refuseTerms(accountId, input.servedBy);
  return transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, accountId)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such account');
    await tx
      .update(account)
      .set({
        ownPace: input.pace ?? row.ownPace ?? fullPace,
        stockReserve: input.reserve ?? row.stockReserve,
        stockCap: input.cap === undefined ? row.stockCap : input.cap,
        relistCancelled: input.relistCancelled ?? row.relistCancelled,
        servedBy: input.servedBy === undefined ? row.servedBy : input.servedBy,
      })
      .where(eq(account.id, accountId));
    const stockChanged =
      (input.reserve !== undefined && input.reserve !== row.stockReserve) ||
      (input.cap !== undefined && input.cap !== row.stockCap) ||
      (input.servedBy !== undefined && input.servedBy !== row.servedBy);
    return { stockChanged };
  });
}

/** Their terms say whether they send what was sold elsewhere. */
async function refuseTerms(accountId: number, servedBy: number): Promise<void> {
  const [there] = await loadAccounts(database(), [servedBy]);
  if (!there) throw new NettingError('not-found', 'There is no such account', { field: 'servedBy' });
  if (there.compiled.rules.fees.handling?.elsewhere === undefined || servedBy === accountId)
    throw new NettingError('invalid', `${there.name} sends nothing that was sold elsewhere`, { field: 'servedBy' });
}
