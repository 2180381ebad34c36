import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { transaction } from '../../../db/client';
import { postagePaid, sale } from '../../../db/schema';

export const postagePaidSchema = z
  .object({
    carrier: z.string().trim().min(1, 'Who carried it?').max(40),
    grams: z.number().int().positive().max(1_000_000),
    paid: z.number().int().min(0).max(10_000_000).describe('Minor units of the items’ currency'),
    saleId: z.number().int().positive().optional().describe('The sale whose parcel it was'),
  })
  .strict();

/**
 * Writes down what a parcel really cost: the cost per pound is learned from it, and the sale's net is reckoned with it.
 * Written down anew for the same sale, it is a correction.
 */
export async function recordPostage(input: z.infer<typeof postagePaidSchema>): Promise<void> {
  await transaction(async (tx) => {
    const { saleId } = input;
    if (saleId !== undefined) {
      const [row] = await tx.select({ id: sale.id }).from(sale).where(eq(sale.id, saleId)).for('update');
      if (!row) throw new NettingError('not-found', 'There is no such sale');
      await tx.delete(postagePaid).where(eq(postagePaid.saleId, saleId));
      await tx.update(sale).set({ postage: input.paid }).where(eq(sale.id, saleId));
    }
    await tx.insert(postagePaid).values({ ...input, at: new Date() });
  });
}
