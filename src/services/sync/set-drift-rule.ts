import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { driftAnswers, driftRulesSchema } from '../../core/sync';
import { transaction } from '../../db/client';
import { account as accountTable } from '../../db/schema';
import type { Actor } from '../access/actor';
import { followRules } from './follow-rules';

export const driftRuleSchema = z
  .object({ field: z.string().max(80), answer: z.enum(driftAnswers).nullable() })
  .strict()
  .describe('A field, or * for all that have no rule of their own');

/** Says what is done from now on when only they changed a field, and does it for what is open. */
export async function setDriftRule(
  actor: Actor,
  accountId: number,
  input: z.infer<typeof driftRuleSchema>,
): Promise<{ settled: number }> {
  await transaction(async (tx) => {
    const [row] = await tx.select().from(accountTable).where(eq(accountTable.id, accountId)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such account');
    const rules = { ...row.driftRules };
    if (input.answer) rules[input.field] = input.answer;
    else delete rules[input.field];
    await tx
      .update(accountTable)
      .set({ driftRules: driftRulesSchema.parse(rules) })
      .where(eq(accountTable.id, accountId));
  });
  return { settled: await followRules(actor, accountId) };
}
