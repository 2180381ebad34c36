import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { fullPace, ownPaceSchema } from '../../core/sync';
import { transaction } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';

export const accountPaceSchema = z
  .object({
    pace: ownPaceSchema,
    reserve: z.number().int().min(0).max(100_000),
    cap: z.number().int().min(1).max(1_000_000).nullable(),
    relistCancelled: z.boolean(),
  })
  .partial()
  .strict();

/** How fast an account is used, and how much of the stock it may offer. Returns whether listings have to be computed anew. */
export async function setAccountPace(
  _actor: Actor,
  accountId: number,
  input: z.infer<typeof accountPaceSchema>,
): Promise<{ stockChanged: boolean }> {
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
      })
      .where(eq(account.id, accountId));
    const stockChanged =
      (input.reserve !== undefined && input.reserve !== row.stockReserve) ||
      (input.cap !== undefined && input.cap !== row.stockCap);
    return { stockChanged };
  });
}
