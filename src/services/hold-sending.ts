import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { fullPace, ownPaceSchema } from '../core/sync';
import { database, transaction } from '../db/client';
import { account, job, run } from '../db/schema';
import type { Actor } from './actor';

/** Stops what a run has not sent yet; nothing is lost, it goes on where it was. Ends and lower quantities are not held: they never wait. */
export async function stopRun(_actor: Actor, runId: number): Promise<{ held: number }> {
  return transaction(async (tx) => {
    const [result] = await tx
      .update(job)
      .set({ state: 'held' })
      .where(and(eq(job.runId, runId), eq(job.state, 'waiting'), sql`${job.priority} > 1`));
    const [known] = await tx.update(run).set({ stoppedAt: new Date() }).where(eq(run.id, runId));
    if (known.affectedRows === 0) throw new NettingError('not-found', 'There is no such run');
    return { held: result.affectedRows };
  });
}

export async function resumeRun(_actor: Actor, runId: number): Promise<{ resumed: number }> {
  return transaction(async (tx) => {
    const [result] = await tx
      .update(job)
      .set({ state: 'waiting', dueAt: sql`utc_timestamp(3)` })
      .where(and(eq(job.runId, runId), eq(job.state, 'held')));
    await tx.update(run).set({ stoppedAt: null }).where(eq(run.id, runId));
    return { resumed: result.affectedRows };
  });
}

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
  const [row] = await database().select().from(account).where(eq(account.id, accountId));
  if (!row) throw new NettingError('not-found', 'There is no such account');
  await database()
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
}
