import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { rate } from '../../../db/schema';
import { base, recheckForeign } from '../rules/recheck-foreign';

export const forgetRateSchema = z.object({ to: z.string().length(3), date: z.iso.date() }).strict();

/** Takes a day's rate back: the one before it holds again. */
export async function forgetRate({ to, date }: z.infer<typeof forgetRateSchema>): Promise<void> {
  const db = database();
  const [{ affectedRows }] = await db
    .delete(rate)
    .where(and(eq(rate.base, base), eq(rate.currency, to), eq(rate.day, date)));
  if (!affectedRows) throw new NettingError('not-found', 'This rate was taken back already');
  await recheckForeign();
}
