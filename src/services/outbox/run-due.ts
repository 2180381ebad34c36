import { and, asc, eq, lte } from 'drizzle-orm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { schedule } from '../../db/schema';
import { planDailyRenewals } from '../listings/plan-daily-renewals';
import { publish } from '../listings/publish';
import { publishSchema } from '../listings/publish-schema';

export type ScheduleRow = typeof schedule.$inferSelect;

/** Takes one due row for itself, so that two workers do not both run it. */
async function takeDue(): Promise<ScheduleRow | null> {
  return transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(schedule)
      .where(and(eq(schedule.state, 'waiting'), lte(schedule.dueAt, new Date())))
      .orderBy(asc(schedule.dueAt))
      .limit(1)
      .for('update', { skipLocked: true });
    if (!row) return null;
    const actor = { id: row.byId, name: row.byName };
    try {
      // In one transaction with the row's own end: done once, or not at all.
      // One that cannot be done leaves nothing behind but its reason.
      const { runId } = await tx.transaction((inner) => publish(actor, publishSchema.parse(row.input), inner));
      await tx.update(schedule).set({ state: 'done', runId }).where(eq(schedule.id, row.id));
    } catch (error) {
      if (!(error instanceof NettingError) && !(error instanceof z.ZodError)) throw error;
      const message =
        error instanceof NettingError ? error.message : 'It was written down in a way that is not understood';
      await tx
        .update(schedule)
        .set({ state: 'failed', message: message.slice(0, 300) })
        .where(eq(schedule.id, row.id));
    }
    return row;
  });
}

let lastPlan = 0;

const planEveryMs = 30_000;

/** Does what is due by the clock. */
export async function runDue(log: Logger): Promise<void> {
  for (let row = await takeDue(); row; row = await takeDue()) log.info({ schedule: row.id, title: row.title }, 'due');
  if (Date.now() - lastPlan < planEveryMs) return;
  lastPlan = Date.now();
  const planned = await planDailyRenewals(new Date());
  if (planned) log.info({ planned }, 'daily renewals');
}
