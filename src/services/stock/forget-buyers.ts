import { and, lt, ne } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { sale } from '../../db/schema';
import type { Actor } from '../access/actor';

export const forgetBuyersSchema = z
  .object({ olderThanDays: z.number().int().min(0).max(3_650) })
  .strict()
  .describe('Sales stay; where they went is forgotten');

/** Takes the buyers' towns out of sales older than so many days: nothing else of a buyer is kept. */
export async function forgetBuyers(
  _actor: Actor,
  { olderThanDays }: z.infer<typeof forgetBuyersSchema>,
): Promise<{ forgotten: number }> {
  const before = new Date(Date.now() - olderThanDays * 86_400_000);
  const [result] = await database()
    .update(sale)
    .set({ buyerTown: '' })
    .where(and(ne(sale.buyerTown, ''), lt(sale.soldAt, before)));
  return { forgotten: result.affectedRows };
}
