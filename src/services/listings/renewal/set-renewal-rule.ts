import { eq } from 'drizzle-orm';
import type { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { noRenewal, type renewalRuleSchema } from '../../../core/sync';
import { database } from '../../../db/client';
import { account as accountTable } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { dueListings } from './due-renewals';

/** Says which listings of an account are renewed by themselves, and how many a day. */
export async function setRenewalRule(
  _actor: Actor,
  accountId: number,
  rule: z.infer<typeof renewalRuleSchema>,
): Promise<{ due: number }> {
  const [result] = await database().update(accountTable).set({ renewal: rule }).where(eq(accountTable.id, accountId));
  if (result.affectedRows === 0) throw new NettingError('not-found', 'There is no such account');
  return { due: (await dueListings(accountId, { ...noRenewal, ...rule }, new Date(), 100_000)).length };
}
