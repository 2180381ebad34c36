import { and, eq, gt, sql } from 'drizzle-orm';
import { heardClock } from '../../core/sync';
import { transaction } from '../../db/client';
import { type AccountRow, account, job } from '../../db/schema';
import { clockOf } from '../records/accounts/clock-of';

/**
 * Hears what time it is at an account's marketplace. Where that is another than was known, what waits for its next day, or
 * for a lock to end, is tried at once: the day may have come.
 */
export async function hearClock(known: AccountRow, theirs: Date): Promise<void> {
  if (!heardClock(clockOf(known), theirs, new Date())) return;
  const accountId = known.id;
  await transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, accountId)).for('update');
    const clock = row && heardClock(clockOf(row), theirs, new Date());
    if (!clock) return;
    await tx
      .update(account)
      .set({
        clockAheadMs: clock.aheadMs,
        clockBeforeMs: clock.beforeMs,
        clockChangedAt: clock.changedAt,
        lockedUntil: null,
        warnedUntil: null,
      })
      .where(eq(account.id, accountId));
    await tx
      .update(job)
      .set({ dueAt: new Date() })
      .where(
        and(
          eq(job.accountId, accountId),
          eq(job.state, 'waiting'),
          sql`${job.errorCode} in ('market-busy', 'market-locked', 'market-warned')`,
          gt(job.dueAt, new Date()),
        ),
      );
  });
}
