import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { categoryMap, mapping } from '../../../db/schema';
import { recheckMarket } from '../../records/listings/recheck-market';

export const forgetMappingSchema = z
  .object({ market: z.string().min(1).max(40), id: z.string().min(1).max(200) })
  .strict();

/** Takes back something that was learned; what was computed with it is computed anew. */
export async function forgetMapping(input: z.infer<typeof forgetMappingSchema>): Promise<void> {
  const [kind, ...rest] = input.id.split('/');
  const key = rest.join('/');
  const db = database();
  const [{ affectedRows }] =
    kind === 'category'
      ? await db.delete(categoryMap).where(and(eq(categoryMap.market, input.market), eq(categoryMap.ownCategory, key)))
      : await db.delete(mapping).where(and(eq(mapping.market, input.market), eq(mapping.id, Number(key) || 0)));
  if (!affectedRows) throw new NettingError('not-found', 'This was forgotten already');
  await recheckMarket(input.market);
}
