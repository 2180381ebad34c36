import { z } from 'zod';
import { database } from '../../db/client';
import { postagePaid } from '../../db/schema';

export const postagePaidSchema = z
  .object({
    carrier: z.string().trim().min(1).max(40),
    grams: z.number().int().positive().max(1_000_000),
    paid: z.number().int().min(0).max(10_000_000),
    saleId: z.number().int().positive().optional(),
  })
  .strict();

/** Writes down what a parcel really cost; the cost per pound is learned from it. */
export async function recordPostage(input: z.infer<typeof postagePaidSchema>): Promise<void> {
  await database()
    .insert(postagePaid)
    .values({ ...input, at: new Date() });
}
