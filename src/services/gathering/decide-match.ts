import { and, eq, inArray, or } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { gathering, matchDecision, matchQuestion, task } from '../../db/schema';
import type { Actor } from '../access/actor';
import { startGathering } from './begin-gathering';

export const decideMatchSchema = z
  .object({
    answer: z.enum(['same', 'different', 'later']).nullable().describe('Null takes an answer back'),
  })
  .strict();

/** What somebody says of two things. It holds from now on, and is not asked again; *later* keeps both waiting. */
export async function decideMatch(
  actor: Actor,
  id: number,
  { answer }: z.infer<typeof decideMatchSchema>,
): Promise<void> {
  await transaction(async (tx) => {
    const [question] = await tx.select().from(matchQuestion).where(eq(matchQuestion.id, id)).for('update');
    if (!question) throw new NettingError('not-found', 'This is not asked any more');
    const [order] = await tx.select().from(gathering).where(eq(gathering.id, question.gatheringId)).for('update');
    if (order?.state === 'working')
      throw new NettingError('too-late', 'They are being brought in just now', { fix: 'Answer when that is over' });
    await tx.update(matchQuestion).set({ answer }).where(eq(matchQuestion.id, id));
    const { a, b } = question;
    if (answer === 'same' || answer === 'different') {
      const isSame = answer === 'same';
      const at = new Date();
      await tx
        .insert(matchDecision)
        .values({ a, b, isSame, byName: actor.name, at })
        .onDuplicateKeyUpdate({ set: { isSame, byName: actor.name, at } });
    } else
      await tx
        .delete(matchDecision)
        .where(
          or(and(eq(matchDecision.a, a), eq(matchDecision.b, b)), and(eq(matchDecision.a, b), eq(matchDecision.b, a))),
        );
  });
}

/** Goes on with what was decided; what is to be decided later keeps waiting. */
export async function goOnGathering(actor: Actor, id: number): Promise<{ decided: number }> {
  return transaction(async (tx) => {
    const [order] = await tx.select().from(gathering).where(eq(gathering.id, id)).for('update');
    if (!order) throw new NettingError('not-found', 'There is no such bringing in');
    const [work] = await tx
      .select({ state: task.state })
      .from(task)
      .where(eq(task.id, order.taskId ?? 0));
    if (order.state === 'working' && (work?.state === 'waiting' || work?.state === 'running'))
      throw new NettingError('too-late', 'It is under way');
    const decided = await tx
      .select({ id: matchQuestion.id })
      .from(matchQuestion)
      .where(and(eq(matchQuestion.gatheringId, id), inArray(matchQuestion.answer, ['same', 'different'])));
    await startGathering(tx, actor, id, `Bringing in ${order.title}`, 0);
    return { decided: decided.length };
  });
}
