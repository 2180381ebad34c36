import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import type { Json } from '../../core/json';
import { pricingSchema } from '../../core/price';
import { transaction } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recheckListings } from '../records/recheck-listings';

const json: z.ZodType<Json> = z.json();

export const updateAccountSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(80),
    footer: z.string().max(500),
    houseTag: z.string().trim().max(60),
    pricing: pricingSchema,
    packaging: z
      .object({ basisPoints: z.number().int().min(0).max(10_000), atLeastGrams: z.number().int().min(0).max(10_000) })
      .strict(),
    autoDraft: z.boolean(),
    defaults: z.record(z.string().max(60), json),
  })
  .partial()
  .strict();

/** Changes an account's name, footer and defaults; listings are computed anew with them. */
export async function updateAccount(
  _actor: Actor,
  id: number,
  input: z.infer<typeof updateAccountSchema>,
): Promise<void> {
  await transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, id)).for('update');
    if (!row) throw new NettingError('not-found', 'There is no such account');
    const defaults = { ...row.defaults, ...input.defaults };
    for (const key of Object.keys(defaults)) if (defaults[key] === null || defaults[key] === '') delete defaults[key];
    await tx
      .update(account)
      .set({ ...input, defaults })
      .where(eq(account.id, id));
  });
  if (Object.keys(input).some((field) => field !== 'name' && field !== 'autoDraft')) await recheckListings(id);
}
