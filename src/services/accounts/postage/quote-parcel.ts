import { z } from 'zod';
import { bandLabels, homeBand, type Quote, quotes } from '../../../core/price';
import { readTariffs } from '../../records/accounts/read-tariffs';

export const quoteParcelSchema = z
  .object({
    grams: z.coerce.number().int().min(0).max(1_000_000),
    lengthMm: z.coerce.number().int().min(0).max(20_000).optional(),
    widthMm: z.coerce.number().int().min(0).max(20_000).optional(),
    heightMm: z.coerce.number().int().min(0).max(20_000).optional(),
    band: z.enum(bandLabels.map(([id]) => id)).default(homeBand),
  })
  .strict();

/** What each carrier asks for a parcel. */
export async function quoteParcel(input: z.infer<typeof quoteParcelSchema>): Promise<Quote[]> {
  const { grams, lengthMm, widthMm, heightMm, band } = input;
  const sides: [number, number, number] | null = lengthMm && widthMm && heightMm ? [lengthMm, widthMm, heightMm] : null;
  return quotes(await readTariffs(), { grams, sides, band });
}
