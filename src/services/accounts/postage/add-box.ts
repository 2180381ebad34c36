import { z } from 'zod';
import { database } from '../../../db/client';
import { box } from '../../../db/schema';
import { recheckPostage } from '../../records/listings/recheck-postage';

export const newBoxSchema = z
  .object({
    name: z.string().trim().min(1, 'A name is needed').max(60),
    lengthMm: z.number().int().positive().max(5_000),
    widthMm: z.number().int().positive().max(5_000),
    heightMm: z.number().int().positive().max(5_000),
    grams: z.number().int().min(0).max(50_000),
    /** With its filling, in minor units of the shop's own currency; null for what every parcel costs. */
    cost: z.number().int().min(0).max(100_000).nullable().default(null),
  })
  .strict();

export async function addBox(input: z.output<typeof newBoxSchema>): Promise<{ id: number }> {
  const [{ insertId }] = await database().insert(box).values(input);
  await recheckPostage();
  return { id: insertId };
}
