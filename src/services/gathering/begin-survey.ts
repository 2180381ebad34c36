import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database, transaction } from '../../db/client';
import { account, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { openAccount } from '../records/accounts/open-account';
import { holderHere, startTask } from '../records/tasks/start-task';
import { workOnTask } from '../records/tasks/work-on-task';
import { type SurveyTask, surveyStep } from './survey-step';

export const begunSurveySchema = z.object({ taskId: z.number(), finished: z.boolean() });

/** Reads what an account has listed; a small shop is read when it answers, a large one goes on in the background. */
export async function beginSurvey(actor: Actor, accountId: number): Promise<z.infer<typeof begunSurveySchema>> {
  const { account: loaded } = await openAccount(accountId);
  const holder = holderHere();
  const { begun, isNew } = await transaction(async (tx) => {
    // One after the other: a second reading at the same time would only ask for the same.
    await tx.select({ id: account.id }).from(account).where(eq(account.id, accountId)).for('update');
    const [open] = await tx
      .select()
      .from(task)
      .where(
        and(
          eq(task.kind, 'survey'),
          inArray(task.state, ['waiting', 'running']),
          sql`json_value(${task.input}, '$.account') = ${accountId}`,
        ),
      )
      .limit(1);
    if (open) return { begun: open, isNew: false };
    const input: SurveyTask = { account: accountId };
    const title = `Reading what is on ${loaded.name}`;
    return { begun: await startTask(tx, actor, { kind: 'survey', title, input, total: 0, holder }), isNew: true };
  });
  if (!isNew) return { taskId: begun.id, finished: false };
  const last = await workOnTask(begun, holder, surveyStep);
  if (last.state === 'done') await database().delete(task).where(eq(task.id, begun.id));
  return { taskId: begun.id, finished: last.state === 'done' };
}
