import { and, asc, eq, lte } from 'drizzle-orm';
import type { Logger } from 'pino';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import { database, transaction } from '../db/client';
import { schedule } from '../db/schema';
import type { Actor } from './actor';
import { publishSchema } from './plan-publish';
import { publish } from './publish';
import { planDailyRenewals } from './renewals';

type ScheduleRow = typeof schedule.$inferSelect;

export type Scheduled = { id: number; kind: ScheduleRow['kind']; title: string; dueAt: string; byName: string };

/** What is to happen at a later time, soonest first. */
export async function findScheduled(): Promise<{ scheduled: Scheduled[] }> {
  const rows = await database()
    .select()
    .from(schedule)
    .where(eq(schedule.state, 'waiting'))
    .orderBy(asc(schedule.dueAt))
    .limit(200);
  return {
    scheduled: rows.map(({ id, kind, title, dueAt, byName }) => ({
      id,
      kind,
      title,
      byName,
      dueAt: dueAt.toISOString(),
    })),
  };
}

export const publishLaterSchema = z.object({ publish: publishSchema, at: z.iso.datetime() }).strict();

/** Publishes at a time: what is ready then is sent then, as it is then. */
export async function publishLater(
  actor: Actor,
  input: z.infer<typeof publishLaterSchema>,
  title: string,
): Promise<{ id: number }> {
  const at = new Date(input.at);
  const now = new Date();
  if (at <= now)
    throw new NettingError('invalid', 'This time has passed', { field: 'at', mend: 'Choose a later time' });
  if (at.getTime() - now.getTime() > 366 * 86_400_000)
    throw new NettingError('invalid', 'At most a year ahead', { field: 'at' });
  const [{ insertId }] = await database()
    .insert(schedule)
    .values({
      kind: 'publish',
      title: title.slice(0, 200),
      dueAt: at,
      input: input.publish,
      byId: actor.id,
      byName: actor.name,
      createdAt: now,
    });
  return { id: insertId };
}

export async function cancelScheduled(_actor: Actor, id: number): Promise<void> {
  const [result] = await database()
    .update(schedule)
    .set({ state: 'cancelled' })
    .where(and(eq(schedule.id, id), eq(schedule.state, 'waiting')));
  if (result.affectedRows === 0) throw new NettingError('too-late', 'It has begun already, or was called off');
}

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
